import { formatQuantity } from '../../base/quantity/index.ts';
import { asTyped, type Calculation } from './calculation.ts';

/** 0 dBu: the voltage of 1 mW in 600 ohm, V (IEC 60268-15 speaks of 0.775 V). */
const DBU_V = Math.sqrt(0.6);
const level = (ratio: number) => 20 * Math.log10(ratio);
const ratio = (db: number) => 10 ** (db / 20);

export const levels: Calculation = {
  id: 'levels',
  title: 'Levels',
  given: [
    { id: 'v', label: 'Voltage (r.m.s.)', quantity: 'voltage', usual: DBU_V },
    { id: 'load', label: 'Load', quantity: 'resistor', usual: 600 },
  ],
  following: [
    {
      id: 'dbu',
      label: 'dBu',
      quantity: 'level',
      isSigned: true,
      unit: 'dBu',
      of: ({ v }) => level(v! / DBU_V),
      moves: 'v',
      inverse: (db) => DBU_V * ratio(db),
    },
    {
      id: 'dbv',
      label: 'dBV',
      quantity: 'level',
      isSigned: true,
      unit: 'dBV',
      of: ({ v }) => level(v!),
      moves: 'v',
      inverse: ratio,
    },
    {
      id: 'w',
      label: 'Power in the load',
      quantity: 'power',
      of: ({ v, load }) => v! ** 2 / load!,
      moves: 'v',
      inverse: (w, { load }) => Math.sqrt(w * load!),
    },
    {
      id: 'peak',
      label: 'Peak to peak',
      quantity: 'voltage',
      of: ({ v }) => 2 * Math.SQRT2 * v!,
      moves: 'v',
      inverse: (pp) => pp / (2 * Math.SQRT2),
    },
  ],
  source: '0 dBu = 0.7746 V, 0 dBV = 1 V, of a sine',
};

export const decibels: Calculation = {
  id: 'decibels',
  title: 'Decibels',
  given: [
    { id: 'a', label: 'In', quantity: 'voltage', usual: 0.1 },
    { id: 'b', label: 'Out', quantity: 'voltage', usual: 1 },
  ],
  following: [
    {
      id: 'db',
      label: 'Gain',
      quantity: 'level',
      isSigned: true,
      of: ({ a, b }) => level(b! / a!),
      moves: 'b',
      inverse: (db, { a }) => a! * ratio(db),
    },
  ],
  source: '20 log10 of a voltage ratio',
};

export const scopeGain: Calculation = {
  id: 'scope',
  title: 'Gain off the scope',
  given: [
    { id: 'divIn', label: 'In, divisions', quantity: 'number', usual: 2 },
    { id: 'perIn', label: 'In, per division', quantity: 'voltage', usual: 0.02 },
    { id: 'divOut', label: 'Out, divisions', quantity: 'number', usual: 4 },
    { id: 'perOut', label: 'Out, per division', quantity: 'voltage', usual: 1 },
  ],
  following: [
    {
      id: 'times',
      label: 'Gain, times',
      quantity: 'number',
      of: ({ divIn, perIn, divOut, perOut }) => (divOut! * perOut!) / (divIn! * perIn!),
      moves: 'divOut',
      inverse: (times, { divIn, perIn, perOut }) => (times * divIn! * perIn!) / perOut!,
    },
    {
      id: 'db',
      label: 'Gain',
      quantity: 'level',
      isSigned: true,
      of: ({ times }) => level(times!),
      moves: 'divOut',
      inverse: (db, { divIn, perIn, perOut }) => (ratio(db) * divIn! * perIn!) / perOut!,
    },
  ],
  says: ({ divIn, perIn, divOut, perOut }) => [
    `In ${formatQuantity(divIn! * perIn!, 'V')}, out ${formatQuantity(divOut! * perOut!, 'V')}, both peak to peak. A probe at 10:1 multiplies what it is on.`,
  ],
  source: '20 log10 of a voltage ratio',
};

export const chipGain: Calculation = {
  id: 'chip',
  title: 'Gain of a chip by two resistors',
  given: [
    { id: 'rf', label: 'Feedback', quantity: 'resistor', usual: 100_000 },
    { id: 'rg', label: 'To ground or in', quantity: 'resistor', usual: 10_000 },
    { id: 'tolerance', label: 'Tolerance of both', quantity: 'ratio', usual: 0.05, isSigned: true },
  ],
  following: [
    {
      id: 'plus',
      label: 'Not inverting',
      quantity: 'level',
      isSigned: true,
      of: ({ rf, rg }) => level(1 + rf! / rg!),
      moves: 'rf',
      inverse: (db, { rg }) => rg! * (ratio(db) - 1),
    },
    {
      id: 'minus',
      label: 'Inverting',
      quantity: 'level',
      isSigned: true,
      of: ({ rf, rg }) => level(rf! / rg!),
      moves: 'rf',
      inverse: (db, { rg }) => rg! * ratio(db),
    },
  ],
  says: ({ rf, rg, tolerance: t }) => {
    const db = (value: number) => formatQuantity(value, 'dB', { digits: 4 });
    const spread = [-1, 1].map((s) => (rf! * (1 + s * t!)) / (rg! * (1 - s * t!)));
    return [
      `With both at the ends of their tolerance: ${db(level(1 + spread[0]!))} to ${db(level(1 + spread[1]!))} not inverting, ${db(level(spread[0]!))} to ${db(level(spread[1]!))} inverting.`,
    ];
  },
  line: ({ rf, rg }) =>
    `Gain: +R90 ${asTyped(rf!, 'resistor')} out minus; +R91 ${asTyped(rg!, 'resistor')} minus 0`,
  source: 'an ideal operational amplifier',
};
