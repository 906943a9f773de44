import { field } from '../field.ts';
import { part } from './part-definition.ts';

const off = { min: 0, usual: 0 } as const;
const KOREN = {
  MU: field.quantity('number', 'Amplification', { above: 0, usual: 100 }),
  EX: field.quantity('number', 'Exponent', { above: 0, usual: 1.4 }),
  KG1: field.quantity('number', 'Anode current coefficient', { above: 0, usual: 1060 }),
  KP: field.quantity('number', 'Knee coefficient', { above: 0, usual: 600 }),
  KVB: field.quantity('number', 'Knee voltage coefficient', { above: 0, usual: 300 }),
  CGK: field.quantity('capacitor', 'Grid-cathode capacitance', off),
  CGA: field.quantity('capacitor', 'Grid-anode capacitance', off),
  CAK: field.quantity('capacitor', 'Anode-cathode capacitance', off),
  RGI: field.quantity('number', 'Grid current coefficient', off),
} as const;

export const triode = part({
  words: 'triode',
  pins: ['a', 'g', 'k'],
  value: null,
  letters: ['VT', 'TUBE'],
  needsValue: false,
  hasModel: true,
  dcPaths: [['a', 'k']],
  fields: {},
  params: KOREN,
  kindWords: ['valve'],
});

export const pentode = part({
  words: 'pentode',
  pins: ['a', 'g2', 'g', 'k'],
  value: null,
  letters: ['VP'],
  needsValue: false,
  hasModel: true,
  dcPaths: [
    ['a', 'k'],
    ['g2', 'k'],
  ],
  fields: {},
  params: {
    ...KOREN,
    KG2: field.quantity('number', 'Screen current coefficient', { above: 0, usual: 4500 }),
  },
});
