import { field } from '../field.ts';
import { part } from './part-definition.ts';

export const capacitor = part({
  words: 'capacitor',
  pins: ['a', 'b'],
  value: 'capacitor',
  letters: ['C'],
  needsValue: true,
  hasModel: true,
  dcPaths: [],
  fields: {
    esr: field.quantity('resistor', 'Series resistance', { min: 0, usual: 0 }),
    leakage: field.quantity('resistor', 'Leakage resistance', { above: 0 }),
    polarised: field.flag('Polarised'),
    ratedC: field.quantity('temperature', 'Rated temperature', { above: 0 }),
  },
  params: {},
  kindWords: ['cap'],
});
