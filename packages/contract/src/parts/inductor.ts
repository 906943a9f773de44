import { field } from '../field.ts';
import { part } from './part-definition.ts';

export const inductor = part({
  words: 'inductor',
  pins: ['a', 'b'],
  value: 'inductor',
  letters: ['L'],
  needsValue: true,
  hasModel: true,
  dcPaths: [['a', 'b']],
  fields: { dcr: field.quantity('resistor', 'Wire resistance', { min: 0, usual: 0 }) },
  params: {},
  kindWords: ['coil'],
});
