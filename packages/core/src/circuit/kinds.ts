import type { PartKind } from '@halfsplit/contract';
import type { QuantityKind } from '../quantity/index.ts';

export interface KindInfo {
  /** Plain words for a sentence: "a carbon resistor" needs "resistor". */
  readonly words: string;
  /** Pins in the order of the unit file; empty for a box, whose pins are free. */
  readonly pins: readonly string[];
  /** What the main value is of; null for kinds known by a type number or a state. */
  readonly value: QuantityKind | null;
  /** Designator letters of the trade, the usual one first (IEC 81346-2 and common practice). */
  readonly letters: readonly string[];
  /** True when it cannot be computed without a main value. */
  readonly needsValue: boolean;
  /** False for a box: counted in tracing and finding, absent in analysis. */
  readonly hasModel: boolean;
  /** Pins between which direct current can flow. */
  readonly dcPaths: readonly (readonly [string, string])[];
}

const two = (
  words: string,
  value: QuantityKind | null,
  letters: readonly string[],
  options: Partial<KindInfo> = {},
): KindInfo => ({
  words,
  pins: ['a', 'b'],
  value,
  letters,
  needsValue: value !== null,
  hasModel: true,
  dcPaths: [['a', 'b']],
  ...options,
});

const junction = (words: string, value: QuantityKind | null, letters: readonly string[]): KindInfo =>
  two(words, value, letters, { pins: ['a', 'k'], dcPaths: [['a', 'k']], needsValue: false });

const active = (
  words: string,
  letters: readonly string[],
  pins: readonly string[],
  dcPaths: readonly (readonly [string, string])[],
): KindInfo => ({ words, pins, value: null, letters, needsValue: false, hasModel: true, dcPaths });

/** Every kind of part, its pins in order and what its main value means. */
export const KINDS: Readonly<Record<PartKind, KindInfo>> = {
  resistor: two('resistor', 'resistor', ['R']),
  potentiometer: {
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
  },
  capacitor: two('capacitor', 'capacitor', ['C'], { dcPaths: [] }),
  inductor: two('inductor', 'inductor', ['L']),
  transformer: {
    words: 'transformer',
    pins: ['p1', 'p2', 's1', 's2'],
    value: 'number',
    letters: ['T', 'TR'],
    needsValue: true,
    hasModel: true,
    dcPaths: [
      ['p1', 'p2'],
      ['s1', 's2'],
    ],
  },
  switch: two('switch', null, ['S', 'SW']),
  jumper: two('jumper', null, ['J', 'JP', 'W']),
  fuse: two('fuse', null, ['F']),
  load: two('load', 'resistor', ['LOAD'], { needsValue: false }),
  speaker: two('speaker', 'resistor', ['LS', 'SPK'], { needsValue: false }),
  headphone: two('headphone', 'resistor', ['HP'], { needsValue: false }),
  diode: junction('diode', null, ['D', 'CR']),
  zener: junction('zener diode', 'voltage', ['Z', 'ZD', 'DZ']),
  led: junction('LED', null, ['LED']),
  bjt: active(
    'transistor',
    ['Q'],
    ['c', 'b', 'e'],
    [
      ['c', 'e'],
      ['b', 'e'],
    ],
  ),
  jfet: active('junction FET', ['JF', 'FET'], ['d', 'g', 's'], [['d', 's']]),
  mosfet: active('MOSFET', ['M'], ['d', 'g', 's'], [['d', 's']]),
  triode: active('triode', ['VT', 'TUBE'], ['a', 'g', 'k'], [['a', 'k']]),
  pentode: active(
    'pentode',
    ['VP'],
    ['a', 'g2', 'g', 'k'],
    [
      ['a', 'k'],
      ['g2', 'k'],
    ],
  ),
  opamp: active(
    'operational amplifier',
    ['U', 'IC', 'OP'],
    ['plus', 'minus', 'out', 'vplus', 'vminus'],
    [
      ['out', 'vplus'],
      ['out', 'vminus'],
    ],
  ),
  timer555: active(
    '555-type timer',
    ['TM'],
    ['gnd', 'trig', 'out', 'reset', 'ctrl', 'thr', 'dis', 'vcc'],
    [
      ['gnd', 'vcc'],
      ['gnd', 'ctrl'],
      ['gnd', 'out'],
      ['gnd', 'dis'],
    ],
  ),
  capsule: active('microphone capsule', ['MK', 'MIC'], ['out', 'gnd'], [['out', 'gnd']]),
  supply: {
    words: 'supply',
    pins: ['plus', 'minus'],
    value: 'voltage',
    letters: ['V', 'B', 'BAT', 'PS'],
    needsValue: true,
    hasModel: true,
    dcPaths: [['plus', 'minus']],
  },
  signal: {
    words: 'signal source',
    pins: ['plus', 'minus'],
    value: 'voltage',
    letters: ['G', 'SG', 'SIG'],
    needsValue: false,
    hasModel: true,
    dcPaths: [['plus', 'minus']],
  },
  box: {
    words: 'box',
    pins: [],
    value: null,
    letters: ['X', 'BOX', 'K', 'CN'],
    needsValue: false,
    hasModel: false,
    dcPaths: [],
  },
};

const BY_LETTERS = new Map(
  (Object.entries(KINDS) as [PartKind, KindInfo][]).flatMap(([kind, info]) =>
    info.letters.map((letters) => [letters, kind] as const),
  ),
);

/** The kind that a designator's letters stand for: "R7" is a resistor. Undefined when they are not usual. */
export function kindOfRef(ref: string): PartKind | undefined {
  const letters = /^[A-Za-z]+/.exec(ref)?.[0]?.toUpperCase() ?? '';
  for (let length = letters.length; length > 0; length -= 1) {
    const kind = BY_LETTERS.get(letters.slice(0, length));
    if (kind) return kind;
  }
  return undefined;
}
