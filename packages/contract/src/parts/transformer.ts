import { field } from '../field.ts';
import { part } from './part-definition.ts';

export const transformer = part({
  words: 'transformer',
  pins: ['p1', 'p2', 's1', 's2'],
  value: 'number',
  letters: ['T', 'TR'],
  needsValue: true,
  hasModel: true,
  dcPaths: [
    ['p1', 'p2'],
    ['s1', 's2'],
  ],
  fields: {
    lp: field.quantity('inductor', 'Primary inductance', { above: 0, usual: 1e3 }),
    coupling: field.quantity('ratio', 'Coupling', { above: 0, max: 1, usual: 1 }),
    rp: field.quantity('resistor', 'Primary wire resistance', { min: 0, usual: 0 }),
    rs: field.quantity('resistor', 'Secondary wire resistance', { min: 0, usual: 0 }),
  },
  params: {},
});
