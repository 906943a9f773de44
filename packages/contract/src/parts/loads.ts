import { field } from '../field.ts';
import { part } from './part-definition.ts';

/** Plain resistance, or a loudspeaker by its small-signal parameters. */
const load = {
  pins: ['a', 'b'],
  value: 'resistor',
  needsValue: false,
  hasModel: true,
  dcPaths: [['a', 'b']],
  fields: {
    re: field.quantity('resistor', 'Voice coil resistance', { above: 0 }),
    le: field.quantity('inductor', 'Voice coil inductance', { min: 0, usual: 0 }),
    fs: field.quantity('frequency', 'Resonance', { above: 0 }),
    qms: field.quantity('number', 'Mechanical Q', { above: 0, usual: 5 }),
    qes: field.quantity('number', 'Electrical Q', { above: 0, usual: 0.5 }),
  },
  params: {},
} as const;

export const plainLoad = part({ ...load, words: 'load', letters: ['LOAD'] });
export const speaker = part({ ...load, words: 'speaker', letters: ['LS', 'SPK'] });
export const headphone = part({ ...load, words: 'headphone', letters: ['HP'] });
