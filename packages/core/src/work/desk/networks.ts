import { makeUp, stockText, type Drawer } from '../drawer/index.ts';
import { combine, formatQuantity, isMade, preferred, type PairKind } from '../../base/quantity/index.ts';
import { asTyped, type Calculation, type DeskValues } from './calculation.ts';

const OHM = 'Kirchhoff and Ohm';
const parallel = (a: number, b: number) => (a * b) / (a + b);
const TAU = 2 * Math.PI;

export const divider: Calculation = {
  id: 'divider',
  title: 'Divider with its load',
  given: [
    { id: 'vin', label: 'In', quantity: 'voltage', usual: 9 },
    { id: 'r1', label: 'Upper', quantity: 'resistor', usual: 10_000 },
    { id: 'r2', label: 'Lower', quantity: 'resistor', usual: 10_000 },
    { id: 'load', label: 'Load', quantity: 'resistor', usual: 1e6 },
  ],
  following: [
    {
      id: 'vout',
      label: 'Out',
      quantity: 'voltage',
      of: ({ vin, r1, r2, load }) => (vin! * parallel(r2!, load!)) / (r1! + parallel(r2!, load!)),
      moves: 'r2',
      inverse: (vout, { vin, r1, load }) => 1 / ((vin! / vout - 1) / r1! - 1 / load!),
    },
  ],
  says: ({ vin, r1, r2 }) => [
    `Draws ${formatQuantity(vin! / (r1! + r2!), 'A')} without load and ${formatQuantity(vin! ** 2 / (r1! + r2!), 'W')}; its source is ${formatQuantity(parallel(r1!, r2!), 'ohm')}.`,
  ],
  line: ({ r1, r2 }) =>
    `Divider: +R90 ${asTyped(r1!, 'resistor')} in out; +R91 ${asTyped(r2!, 'resistor')} out 0`,
  source: OHM,
};

export const rcCorner: Calculation = {
  id: 'rc',
  title: 'RC corner',
  given: [
    { id: 'r', label: 'R', quantity: 'resistor', usual: 10_000 },
    { id: 'c', label: 'C', quantity: 'capacitor', usual: 100e-9 },
  ],
  following: [
    {
      id: 'f',
      label: 'Corner',
      quantity: 'frequency',
      of: ({ r, c }) => 1 / (TAU * r! * c!),
      moves: 'c',
      inverse: (f, { r }) => 1 / (TAU * r! * f),
    },
    {
      id: 'tau',
      label: 'Time constant',
      quantity: 'time',
      of: ({ r, c }) => r! * c!,
      moves: 'r',
      inverse: (tau, { c }) => tau / c!,
    },
  ],
  says: ({ c }) => nearWords('C', c!, 'capacitor'),
  line: ({ r, c }) => `RC: +R90 ${asTyped(r!, 'resistor')} in out; +C90 ${asTyped(c!, 'capacitor')} out 0`,
  source: 'f = 1/(2 pi R C), -3 dB',
};

export const lcCorner: Calculation = {
  id: 'lc',
  title: 'LC resonance',
  given: [
    { id: 'l', label: 'L', quantity: 'inductor', usual: 1e-3 },
    { id: 'c', label: 'C', quantity: 'capacitor', usual: 100e-9 },
  ],
  following: [
    {
      id: 'f',
      label: 'Resonance',
      quantity: 'frequency',
      of: ({ l, c }) => 1 / (TAU * Math.sqrt(l! * c!)),
      moves: 'c',
      inverse: (f, { l }) => 1 / (l! * (TAU * f) ** 2),
    },
    {
      id: 'z',
      label: 'Characteristic impedance',
      quantity: 'resistor',
      of: ({ l, c }) => Math.sqrt(l! / c!),
      moves: 'l',
      inverse: (z, { c }) => c! * z ** 2,
    },
  ],
  source: 'Thomson: f = 1/(2 pi sqrt(L C))',
};

/** Two of a kind in series and in parallel. */
function two(kind: PairKind, id: string, title: string, usual: readonly [number, number]): Calculation {
  const letter = kind === 'capacitor' ? 'C' : 'R';
  const all = (wiring: 'series' | 'parallel') => (v: DeskValues) => combine(v.a!, v.b!, wiring, kind);
  const adds = (wiring: 'series' | 'parallel') => (wiring === 'series') !== (kind === 'capacitor');
  const other = (wiring: 'series' | 'parallel') => (target: number, v: DeskValues) =>
    adds(wiring) ? target - v.a! : 1 / (1 / target - 1 / v.a!);
  return {
    id,
    title,
    given: [
      { id: 'a', label: `${letter}1`, quantity: kind, usual: usual[0] },
      { id: 'b', label: `${letter}2`, quantity: kind, usual: usual[1] },
    ],
    following: (['series', 'parallel'] as const).map((wiring) => ({
      id: wiring,
      label: wiring === 'series' ? 'In series' : 'In parallel',
      quantity: kind,
      of: all(wiring),
      moves: 'b',
      inverse: other(wiring),
    })),
    source: 'Kirchhoff',
  };
}
export const twoResistors = two('resistor', 'two-resistors', 'Two resistors', [10_000, 10_000]);
export const twoCapacitors = two('capacitor', 'two-capacitors', 'Two capacitors', [100e-9, 100e-9]);

const WIRINGS = { single: '', series: ' in series', parallel: ' in parallel' } as const;

/** A value made up: of a series, and of what is there. */
function madeUp(kind: 'resistor' | 'capacitor', id: string, title: string, usual: number): Calculation {
  return {
    id,
    title,
    given: [{ id: 'value', label: 'Wanted', quantity: kind, usual }],
    following: [],
    says: ({ value }, drawer) => [...nearWords('E24', value!, kind), ...fromDrawer(value!, kind, drawer)],
    source: 'IEC 60063',
  };
}
export const madeResistor = madeUp('resistor', 'made-resistor', 'Resistor made up', 19_000);
export const madeCapacitor = madeUp('capacitor', 'made-capacitor', 'Capacitor made up', 330e-9);

function nearWords(name: string, value: number, kind: PairKind): string[] {
  if (!isMade(value)) return [];
  const unit = kind === 'capacitor' ? 'F' : 'ohm';
  const text = (v: number) => formatQuantity(v, unit);
  const { nearest, nearestError, seriesPair, parallelPair } = preferred(value, 'E24', kind);
  const percent = (error: number) => `${formatQuantity(100 * error, '', { digits: 2, signed: true })} %`;
  if (Math.abs(nearestError) < 1e-9) return [`${name}: ${text(nearest)} is a value of E24.`];
  const [pair, wiring] =
    Math.abs(seriesPair.error) < Math.abs(parallelPair.error)
      ? [seriesPair, 'series' as const]
      : [parallelPair, 'parallel' as const];
  return [
    `${name}: nearest ${text(nearest)} (${percent(nearestError)}), or ${text(pair.values[0])} and ${text(pair.values[1])} in ${wiring} (${percent(pair.error)}).`,
  ];
}

function fromDrawer(value: number, kind: 'resistor' | 'capacitor', drawer: Drawer): string[] {
  if (drawer.length === 0 || !isMade(value)) return [];
  const [best] = makeUp(drawer, { kind, value }, kind);
  if (!best) return ['The drawer has none of these.'];
  const names = best.of.map((i) => `${stockText(i)}${i.place === '' ? '' : ` (${i.place})`}`);
  return [
    `In the drawer: ${names.join(' and ')}${WIRINGS[best.made]}, ${formatQuantity(100 * best.error, '', { digits: 2, signed: true })} %.`,
  ];
}
