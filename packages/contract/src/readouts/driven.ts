import { field } from '../field.ts';
import { readout } from './readout-definition.ts';
import { FREQUENCY } from './transfers.ts';

const SOURCE = field.name('source', 'Source', { isNeeded: true });
const OUT = field.name('net', 'At net', { isNeeded: true });
const THD = field.quantity('ratio', 'Distortion', { above: 0, usual: 0.01, example: '1 %' });

export const thd = readout({
  words: 'Distortion at a level',
  unit: 'ratio',
  quantity: 'ratio',
  isSlow: true,
  fields: {
    source: SOURCE,
    out: OUT,
    frequencyHz: FREQUENCY,
    levelV: field.quantity('voltage', 'Level, peak', { above: 0, isNeeded: true, example: '100 mV' }),
  },
});

export const headroom = readout({
  words: 'Headroom before it distorts',
  unit: 'V',
  quantity: 'voltage',
  isSlow: true,
  fields: { source: SOURCE, out: OUT, frequencyHz: FREQUENCY, thd: THD },
});

export const outputPower = readout({
  words: 'Power into a load before it distorts',
  unit: 'W',
  quantity: 'power',
  isSlow: true,
  fields: {
    source: SOURCE,
    out: OUT,
    load: field.name('part', 'Load', { isNeeded: true }),
    frequencyHz: FREQUENCY,
    thd: THD,
  },
});
