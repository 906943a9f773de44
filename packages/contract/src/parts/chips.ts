import { field } from '../field.ts';
import { part } from './part-definition.ts';

const off = { min: 0, usual: 0 } as const;
const infinite = { above: 0, usual: Number.POSITIVE_INFINITY } as const;

export const opamp = part({
  words: 'operational amplifier',
  pins: ['plus', 'minus', 'out', 'vplus', 'vminus'],
  value: null,
  letters: ['U', 'IC', 'OP'],
  needsValue: false,
  hasModel: true,
  dcPaths: [
    ['out', 'vplus'],
    ['out', 'vminus'],
  ],
  fields: {},
  params: {
    AOL: field.quantity('number', 'Open-loop gain', { above: 0, usual: 1e5 }),
    GBW: field.quantity('frequency', 'Gain-bandwidth product', { above: 0, usual: 1e6 }),
    RIN: field.quantity('resistor', 'Input resistance', infinite),
    ROUT: field.quantity('resistor', 'Output resistance', off),
    VOS: field.quantity('voltage', 'Input offset', { usual: 0 }),
    IB: field.quantity('current', 'Input bias current', { usual: 0 }),
    EN: field.quantity('number', 'Input noise, V/rtHz', off),
    ENF: field.quantity('frequency', 'Noise corner', off),
    IN: field.quantity('number', 'Input noise current, A/rtHz', off),
    headroomHigh: field.quantity('voltage', 'Kept from the upper rail', off),
    headroomLow: field.quantity('voltage', 'Kept from the lower rail', off),
    SR: field.quantity('number', 'Slew rate, V/s', infinite),
    IQ: field.quantity('current', 'Quiescent current', off),
    minSupply: field.quantity('voltage', 'Least supply', off),
    IMAX: field.quantity('current', 'Most the output gives', infinite),
  },
});

export const timer555 = part({
  words: '555-type timer',
  pins: ['gnd', 'trig', 'out', 'reset', 'ctrl', 'thr', 'dis', 'vcc'],
  value: null,
  letters: ['TM'],
  needsValue: false,
  hasModel: true,
  dcPaths: [
    ['gnd', 'vcc'],
    ['gnd', 'ctrl'],
    ['gnd', 'out'],
    ['gnd', 'dis'],
  ],
  fields: {},
  params: {
    RDIV: field.quantity('resistor', 'Each divider resistor', { above: 0, usual: 5000 }),
    VHIGH: field.quantity('voltage', 'Output high, below vcc', { min: 0, usual: 1.2 }),
    VLOW: field.quantity('voltage', 'Output low', { min: 0, usual: 0.1 }),
    ROUT: field.quantity('resistor', 'Output resistance', { above: 0, usual: 10 }),
    RDIS: field.quantity('resistor', 'Discharge resistance', { above: 0, usual: 10 }),
    VRESET: field.quantity('voltage', 'Reset acts below', { min: 0, usual: 0.7 }),
  },
  kindWords: ['555'],
});

export const regulator = part({
  words: 'voltage regulator',
  pins: ['in', 'out', 'gnd'],
  value: 'voltage',
  letters: ['VREG', 'REG'],
  needsValue: true,
  isSigned: true,
  hasModel: true,
  dcPaths: [
    ['in', 'gnd'],
    ['out', 'gnd'],
  ],
  fields: {
    dropout: field.quantity('voltage', 'Dropout', { min: 0, usual: 2 }),
    limit: field.quantity('current', 'Current limit', { above: 0, usual: 1.5 }),
  },
  params: { IQ: field.quantity('current', 'Quiescent current', { min: 0, usual: 5e-3 }) },
});

export const clock = part({
  words: 'chip whose rate a resistor sets',
  pins: ['rset', 'gnd'],
  hasFreePins: true,
  value: null,
  letters: ['CLK'],
  needsValue: false,
  hasModel: false,
  dcPaths: [],
  fields: {
    ratedHz: field.quantity('frequency', 'Rated rate', { above: 0, isNeeded: true }),
    ratedOhm: field.quantity('resistor', 'At this resistor', { above: 0, isNeeded: true }),
    exponent: field.quantity('number', 'Exponent', { usual: -1 }),
    minOhm: field.quantity('resistor', 'Least resistor', { above: 0 }),
    maxOhm: field.quantity('resistor', 'Largest resistor', { above: 0 }),
  },
  params: {},
});

export const capsule = part({
  words: 'microphone capsule',
  pins: ['out', 'gnd'],
  value: null,
  letters: ['MK', 'MIC'],
  needsValue: false,
  hasModel: true,
  dcPaths: [['out', 'gnd']],
  fields: {
    pressurePa: field.quantity('number', 'Sound, Pa peak', { min: 0, usual: 0 }),
    frequency: field.quantity('frequency', 'Frequency', { above: 0, usual: 1000 }),
  },
  params: {
    ID: field.quantity('current', 'Drain current', { above: 0, usual: 3e-4 }),
    ROUT: field.quantity('resistor', 'Output resistance', { above: 0, usual: 5e4 }),
    SENS: field.quantity('number', 'Sensitivity, V/Pa', { above: 0, usual: 0.01 }),
    RLOAD: field.quantity('resistor', 'Into this load', { above: 0, usual: 2200 }),
    EN: field.quantity('number', 'Self noise, V/rtHz', { min: 0, usual: 2e-8 }),
    VKNEE: field.quantity('voltage', 'Knee voltage', { above: 0, usual: 0.3 }),
  },
});
