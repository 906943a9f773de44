import { field } from '../field.ts';
import { readout } from './readout-definition.ts';

const needed = { isNeeded: true } as const;
export const FREQUENCY = field.quantity('frequency', 'At frequency', {
  above: 0,
  isNeeded: true,
  example: '1 kHz',
});
/** A net, or a source by its designator: then its electromotive force, with its resistance in the way. */
const FROM = field.name('net or source', 'From net or source', needed);
const TO = field.name('net', 'To net', needed);

export const gain = readout({
  words: 'Gain at a frequency',
  unit: 'dB',
  quantity: 'level',
  fields: { from: FROM, to: TO, toMinus: field.name('net', 'Less net'), frequencyHz: FREQUENCY },
});

export const corner = readout({
  words: 'Bass or treble corner',
  unit: 'Hz',
  quantity: 'frequency',
  fields: {
    from: FROM,
    to: TO,
    side: field.word(['low', 'high'], 'Side', {
      isNeeded: true,
      synonyms: { bass: 'low', treble: 'high', lower: 'low', upper: 'high' },
      captions: { low: 'bass', high: 'treble' },
    }),
    dropDb: field.quantity('level', 'Fallen by', { above: 0, usual: 3, example: '3 dB' }),
    referenceHz: field.quantity('frequency', 'Against', { above: 0, usual: 1000, example: '1 kHz' }),
  },
});

export const curveError = readout({
  words: 'Error against a published curve',
  unit: 'dB',
  quantity: 'level',
  fields: {
    from: FROM,
    to: TO,
    curve: field.word(['disc-replay'], 'Curve', { isNeeded: true }),
    frequencyHz: FREQUENCY,
  },
});

export const separation = readout({
  words: 'Separation of two channels',
  unit: 'dB',
  quantity: 'level',
  fields: {
    from: FROM,
    wanted: field.name('net', 'Wanted at net', needed),
    leak: field.name('net', 'Leaks to net', needed),
    frequencyHz: FREQUENCY,
  },
});

export const inputImpedance = readout({
  words: 'Input impedance',
  unit: 'ohm',
  quantity: 'resistor',
  fields: { source: field.name('source', 'Source', needed), frequencyHz: FREQUENCY },
});

export const outputImpedance = readout({
  words: 'Output impedance',
  unit: 'ohm',
  quantity: 'resistor',
  fields: { net: field.name('net', 'Net', needed), frequencyHz: FREQUENCY },
});

export const noise = readout({
  words: 'Noise over the audio band',
  unit: 'V',
  quantity: 'voltage',
  fields: {
    out: field.name('net', 'At net', needed),
    weighting: field.word(['none', 'A', '468'], 'Weighting', {
      usual: 'none',
      synonyms: { flat: 'none', 'A-weighted': 'A', 'ITU-R 468': '468', 'BS.468': '468' },
    }),
    fromHz: field.quantity('frequency', 'From', { above: 0, usual: 20, example: '20 Hz' }),
    toHz: field.quantity('frequency', 'Up to', { above: 0, usual: 20_000, example: '20 kHz' }),
    source: field.name('source', 'Referred to source'),
  },
});

export const ripple = readout({
  words: 'Supply ripple that gets through',
  unit: 'V',
  quantity: 'voltage',
  fields: {
    net: field.name('net', 'Net', needed),
    frequencyHz: FREQUENCY,
    sourceV: field.quantity('voltage', 'Ripple on the supply', {
      above: 0,
      isNeeded: true,
      example: '10 mV',
    }),
    source: field.name('supply', 'On supply'),
  },
});

export const stability = readout({
  words: 'Stability: damping of what rings most',
  unit: '',
  quantity: 'number',
  fields: {},
});
