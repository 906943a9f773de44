import { field } from '../field.ts';
import { part } from './part-definition.ts';

const junction = {
  pins: ['a', 'k'],
  needsValue: false,
  hasModel: true,
  dcPaths: [['a', 'k']],
  fields: {},
  params: {
    IS: field.quantity('current', 'Saturation current', { above: 0, usual: 1e-14 }),
    N: field.quantity('number', 'Emission coefficient', { above: 0, usual: 1 }),
    RS: field.quantity('resistor', 'Series resistance', { min: 0, usual: 0 }),
    BV: field.quantity('voltage', 'Breakdown voltage', {
      min: 0,
      usual: Number.POSITIVE_INFINITY,
      isOffAtZero: true,
    }),
    IBV: field.quantity('current', 'Current at breakdown', { above: 0, usual: 1e-3 }),
    CJO: field.quantity('capacitor', 'Junction capacitance', { min: 0, usual: 0 }),
    VJ: field.quantity('voltage', 'Junction potential', { above: 0, usual: 1 }),
    M: field.quantity('number', 'Grading coefficient', { above: 0, max: 0.99, usual: 0.5 }),
    TT: field.quantity('time', 'Transit time', { min: 0, usual: 0 }),
    KF: field.quantity('number', 'Flicker coefficient', { min: 0, usual: 0 }),
  },
} as const;

export const diode = part({ ...junction, words: 'diode', value: null, letters: ['D', 'CR'] });
export const zener = part({
  ...junction,
  words: 'zener diode',
  value: 'voltage',
  letters: ['Z', 'ZD', 'DZ'],
});
export const led = part({ ...junction, words: 'LED', value: null, letters: ['LED'] });
