import { field } from '../field.ts';
import { part } from './part-definition.ts';

const LETTER_DOUBT = (letter: string) =>
  `"${letter}" is log with some makers and linear with others: write log, linear or antilog`;

export const potentiometer = part({
  words: 'potentiometer',
  pins: ['1', '2', '3'],
  value: 'resistor',
  letters: ['P', 'VR', 'RV', 'POT'],
  needsValue: true,
  hasModel: true,
  dcPaths: [
    ['1', '2'],
    ['2', '3'],
  ],
  fields: {
    taper: field.word(['linear', 'log', 'antilog'], 'Taper', {
      usual: 'linear',
      synonyms: {
        lin: 'linear',
        audio: 'log',
        logarithmic: 'log',
        'reverse log': 'antilog',
        'reverse-log': 'antilog',
        revlog: 'antilog',
        'anti-log': 'antilog',
      },
      ambiguous: { a: LETTER_DOUBT('A'), b: LETTER_DOUBT('B'), c: LETTER_DOUBT('C') },
    }),
    position: field.quantity('ratio', 'Travel from pin 1', { min: 0, max: 1, usual: 0.5 }),
  },
  params: {},
  kindWords: ['pot'],
});
