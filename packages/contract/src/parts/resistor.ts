import { part } from './part-definition.ts';

export const resistor = part({
  words: 'resistor',
  pins: ['a', 'b'],
  value: 'resistor',
  letters: ['R'],
  needsValue: true,
  hasModel: true,
  dcPaths: [['a', 'b']],
  fields: {},
  params: {},
});
