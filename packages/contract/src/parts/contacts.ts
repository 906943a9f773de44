import { field } from '../field.ts';
import { part } from './part-definition.ts';

/** A contact that is closed unless it says otherwise. */
const contact = {
  pins: ['a', 'b'],
  value: null,
  needsValue: false,
  hasModel: true,
  dcPaths: [['a', 'b']],
  fields: {
    closed: field.flag('Closed', { usual: true }),
    contactOhm: field.quantity('resistor', 'Contact resistance', { above: 0, usual: 0.001 }),
  },
  params: {},
} as const;

export const switchContact = part({ ...contact, words: 'switch', letters: ['S', 'SW'] });
export const jumper = part({ ...contact, words: 'jumper', letters: ['J', 'JP', 'W'], kindWords: ['link'] });
export const fuse = part({ ...contact, words: 'fuse', letters: ['F'] });

export const changeover = part({
  words: 'changeover switch',
  pins: ['com', 'a', 'b'],
  value: null,
  letters: ['CO'],
  needsValue: false,
  hasModel: true,
  dcPaths: [
    ['com', 'a'],
    ['com', 'b'],
  ],
  fields: { position: field.word(['a', 'b', 'open'], 'Position', { usual: 'a', synonyms: { off: 'open' } }) },
  params: {},
});

export const jack = part({
  words: 'jack',
  pins: ['tip', 'sleeve', 'ring', 'tipSwitch', 'ringSwitch'],
  optionalPins: ['ring', 'tipSwitch', 'ringSwitch'],
  value: null,
  letters: ['JK'],
  needsValue: false,
  hasModel: true,
  dcPaths: [
    ['tip', 'tipSwitch'],
    ['ring', 'ringSwitch'],
    ['ring', 'sleeve'],
  ],
  fields: {
    inserted: field.flag('Plug inserted', { usual: false }),
    plug: field.word(['mono', 'stereo'], 'Plug', { usual: 'mono', synonyms: { TS: 'mono', TRS: 'stereo' } }),
  },
  params: {},
});

export const relay = part({
  words: 'relay',
  pins: ['coilA', 'coilB', 'com', 'no', 'nc'],
  optionalPins: ['no', 'nc'],
  value: null,
  letters: ['RE', 'RLY'],
  needsValue: false,
  hasModel: true,
  dcPaths: [
    ['coilA', 'coilB'],
    ['com', 'no'],
    ['com', 'nc'],
  ],
  fields: {
    coilOhm: field.quantity('resistor', 'Coil resistance', { above: 0, usual: 300 }),
    pullInV: field.quantity('voltage', 'Pulls in at', { above: 0, usual: 9 }),
    dropOutV: field.quantity('voltage', 'Releases below', { above: 0, usual: 1.2 }),
    operateS: field.quantity('time', 'Pulls in after', { min: 0, usual: 5e-3 }),
    releaseS: field.quantity('time', 'Releases after', { min: 0, usual: 2e-3 }),
    contactA: field.quantity('current', 'Contact rating', { above: 0 }),
  },
  params: {},
});
