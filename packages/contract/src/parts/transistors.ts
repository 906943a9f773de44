import { field } from '../field.ts';
import { part } from './part-definition.ts';

const off = { min: 0, usual: 0 } as const;
const infinite = { min: 0, usual: Number.POSITIVE_INFINITY, isOffAtZero: true } as const;

export const bjt = part({
  words: 'transistor',
  pins: ['c', 'b', 'e'],
  value: null,
  letters: ['Q'],
  needsValue: false,
  hasModel: true,
  dcPaths: [
    ['c', 'e'],
    ['b', 'e'],
  ],
  fields: { polarity: field.word(['npn', 'pnp'], 'Polarity') },
  params: {
    IS: field.quantity('current', 'Saturation current', { above: 0, usual: 1e-14 }),
    BF: field.quantity('number', 'Forward current gain', { above: 0, usual: 100 }),
    BR: field.quantity('number', 'Reverse current gain', { above: 0, usual: 1 }),
    NF: field.quantity('number', 'Forward emission coefficient', { above: 0, usual: 1 }),
    NR: field.quantity('number', 'Reverse emission coefficient', { above: 0, usual: 1 }),
    VAF: field.quantity('voltage', 'Forward Early voltage', infinite),
    VAR: field.quantity('voltage', 'Reverse Early voltage', infinite),
    IKF: field.quantity('current', 'Forward knee current', infinite),
    ISE: field.quantity('current', 'Base-emitter leakage', off),
    NE: field.quantity('number', 'Its emission coefficient', { above: 0, usual: 1.5 }),
    ISC: field.quantity('current', 'Base-collector leakage', off),
    NC: field.quantity('number', 'Its emission coefficient', { above: 0, usual: 2 }),
    RB: field.quantity('resistor', 'Base resistance', off),
    RC: field.quantity('resistor', 'Collector resistance', off),
    RE: field.quantity('resistor', 'Emitter resistance', off),
    CJE: field.quantity('capacitor', 'Base-emitter capacitance', off),
    VJE: field.quantity('voltage', 'Base-emitter potential', { above: 0, usual: 0.75 }),
    MJE: field.quantity('number', 'Base-emitter grading', { above: 0, max: 0.99, usual: 0.33 }),
    CJC: field.quantity('capacitor', 'Base-collector capacitance', off),
    VJC: field.quantity('voltage', 'Base-collector potential', { above: 0, usual: 0.75 }),
    MJC: field.quantity('number', 'Base-collector grading', { above: 0, max: 0.99, usual: 0.33 }),
    FC: field.quantity('number', 'Forward-bias edge', { above: 0, max: 0.99, usual: 0.5 }),
    TF: field.quantity('time', 'Transit time', off),
    KF: field.quantity('number', 'Flicker coefficient', off),
  },
});

const FET_POLARITY = field.word(['n', 'p'], 'Polarity', {
  synonyms: { 'n-channel': 'n', 'p-channel': 'p', nch: 'n', pch: 'p' },
});

export const jfet = part({
  words: 'junction FET',
  pins: ['d', 'g', 's'],
  value: null,
  letters: ['JF', 'FET'],
  needsValue: false,
  hasModel: true,
  dcPaths: [['d', 's']],
  fields: { polarity: FET_POLARITY },
  params: {
    VTO: field.quantity('voltage', 'Pinch-off voltage', { usual: -2 }),
    BETA: field.quantity('number', 'Transconductance coefficient', { above: 0, usual: 1e-4 }),
    LAMBDA: field.quantity('number', 'Channel length modulation', off),
    IS: field.quantity('current', 'Gate saturation current', { above: 0, usual: 1e-14 }),
    CGS: field.quantity('capacitor', 'Gate-source capacitance', off),
    CGD: field.quantity('capacitor', 'Gate-drain capacitance', off),
    KF: field.quantity('number', 'Flicker coefficient', off),
  },
});

export const mosfet = part({
  words: 'MOSFET',
  pins: ['d', 'g', 's'],
  value: null,
  letters: ['M'],
  needsValue: false,
  hasModel: true,
  dcPaths: [['d', 's']],
  fields: { polarity: FET_POLARITY },
  params: {
    VTO: field.quantity('voltage', 'Threshold voltage', { usual: 1 }),
    KP: field.quantity('number', 'Transconductance coefficient', { above: 0, usual: 2e-5 }),
    LAMBDA: field.quantity('number', 'Channel length modulation', off),
    CGS: field.quantity('capacitor', 'Gate-source capacitance', off),
    CGD: field.quantity('capacitor', 'Gate-drain capacitance', off),
    KF: field.quantity('number', 'Flicker coefficient', off),
  },
});
