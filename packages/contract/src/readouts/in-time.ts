import { field } from '../field.ts';
import { readout } from './readout-definition.ts';

const NET = field.name('net', 'Net', { isNeeded: true });

export const rate = readout({
  words: 'Rate of an oscillation or clock',
  unit: 'Hz',
  quantity: 'frequency',
  isSlow: true,
  fields: { net: field.name('net', 'Net'), part: field.name('part', 'or clock') },
});

export const period = readout({
  words: 'Period of an oscillation',
  unit: 's',
  quantity: 'time',
  isSlow: true,
  fields: { net: NET },
});

export const delay = readout({
  words: 'Delay after switch-on',
  unit: 's',
  quantity: 'time',
  isSlow: true,
  fields: {
    net: NET,
    thresholdV: field.quantity('voltage', 'Threshold', { isNeeded: true, example: '4.5 V' }),
    rising: field.flag('Rising', { usual: true }),
  },
});

export const thump = readout({
  words: 'Thump at switch-on',
  unit: 'V',
  quantity: 'voltage',
  isSlow: true,
  fields: { net: NET },
});

const OF = field.name('readout', 'Of the readout', { isNeeded: true });
const CONTROL = field.name('control', 'Over the potentiometer', { isNeeded: true });

export const range = readout({
  words: 'Range over a potentiometer',
  unit: '',
  quantity: 'number',
  isSlow: true,
  fields: {
    of: OF,
    part: CONTROL,
    in: field.word(['unit', 'semitones'], 'In', {
      usual: 'unit',
      captions: { unit: 'its own unit' },
    }),
  },
});

export const overlap = readout({
  words: 'Overlap of a range in two settings',
  unit: 'octaves',
  quantity: 'octaves',
  isSlow: true,
  fields: { of: OF, part: CONTROL, settings: field.settings('Between settings') },
});
