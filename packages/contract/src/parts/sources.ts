import { field } from '../field.ts';
import { part } from './part-definition.ts';

export const supply = part({
  words: 'supply',
  pins: ['plus', 'minus'],
  value: 'voltage',
  letters: ['V', 'B', 'BAT', 'PS'],
  needsValue: true,
  isSigned: true,
  hasModel: true,
  dcPaths: [['plus', 'minus']],
  fields: { resistance: field.quantity('resistor', 'Internal resistance', { min: 0, usual: 0 }) },
  params: {},
  kindWords: ['battery'],
});

export const signal = part({
  words: 'signal source',
  pins: ['plus', 'minus'],
  value: 'voltage',
  letters: ['G', 'SG', 'SIG'],
  needsValue: false,
  isSigned: true,
  hasModel: true,
  dcPaths: [['plus', 'minus']],
  fields: {
    resistance: field.quantity('resistor', 'Source resistance', { min: 0, usual: 0 }),
    frequency: field.quantity('frequency', 'Frequency', { above: 0, usual: 1000 }),
    waveform: field.word(['sine', 'square', 'triangle', 'pulse', 'sampled'], 'Waveform', {
      usual: 'sine',
      synonyms: { sinus: 'sine', rectangle: 'square', rectangular: 'square', tri: 'triangle' },
    }),
    offset: field.quantity('voltage', 'Offset', { usual: 0 }),
    delay: field.quantity('time', 'Delay of the pulse', { min: 0, usual: 0 }),
    width: field.quantity('time', 'Width of the pulse', { min: 0, usual: 0 }),
    periodS: field.quantity('time', 'Period of the pulse', { above: 0 }),
    rise: field.quantity('time', 'Rise of the pulse', { min: 0, usual: 0 }),
    fall: field.quantity('time', 'Fall of the pulse', { min: 0, usual: 0 }),
    samples: field.samples('Samples'),
    sampleRateHz: field.quantity('frequency', 'Sample rate', { above: 0, usual: 48_000 }),
  },
  params: {},
  kindWords: ['tone', 'sine', 'square', 'triangle', 'pulse'],
});

export const box = part({
  words: 'box',
  pins: [],
  hasFreePins: true,
  value: null,
  letters: ['X', 'BOX', 'K', 'CN'],
  needsValue: false,
  hasModel: false,
  dcPaths: [],
  fields: {},
  params: {},
});
