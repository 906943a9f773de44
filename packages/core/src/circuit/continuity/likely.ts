import type { PartKind } from '@zemble/contract';
import type { NetPin } from './names.ts';

/*
 * How likely pins are on one net before anything beeped, from what circuits of the trade usually look like (common practice;
 * the figures are rough shares, and only steer which beep is proposed first: none of them ever joins a net).
 */

/** How often a pin is on the ground net. */
const ON_GROUND: Readonly<Partial<Record<PartKind, Readonly<Record<string, number>>>>> = {
  resistor: { a: 0.12, b: 0.24 },
  capacitor: { a: 0.05, b: 0.4 },
  potentiometer: { '1': 0.45, '2': 0.03, '3': 0.08 },
  bjt: { c: 0.03, b: 0.02, e: 0.3 },
  jfet: { d: 0.02, g: 0.1, s: 0.25 },
  mosfet: { d: 0.02, g: 0.02, s: 0.45 },
  triode: { a: 0.01, g: 0.03, k: 0.1 },
  pentode: { a: 0.01, g2: 0.01, g: 0.03, k: 0.1 },
  opamp: { plus: 0.18, minus: 0.02, out: 0.01, vplus: 0.01, vminus: 0.5 },
  timer555: { gnd: 0.97 },
  regulator: { gnd: 0.9, in: 0.01, out: 0.01 },
  supply: { plus: 0.03, minus: 0.9 },
  signal: { plus: 0.02, minus: 0.95 },
  capsule: { gnd: 0.95, out: 0.01 },
  diode: { a: 0.25, k: 0.2 },
  zener: { a: 0.6, k: 0.05 },
  led: { a: 0.05, k: 0.5 },
  jack: { tip: 0.01, sleeve: 0.95, ring: 0.1, tipSwitch: 0.35 },
  load: { a: 0.02, b: 0.85 },
};
const USUALLY_ON_GROUND = 0.1;

/** How often a pin is on the positive supply. */
const ON_SUPPLY: Readonly<Partial<Record<PartKind, Readonly<Record<string, number>>>>> = {
  resistor: { a: 0.16, b: 0.06 },
  capacitor: { a: 0.12, b: 0.02 },
  bjt: { c: 0.2, e: 0.08 },
  jfet: { d: 0.3 },
  mosfet: { d: 0.2, s: 0.05 },
  opamp: { vplus: 0.97 },
  timer555: { vcc: 0.97, reset: 0.75 },
  regulator: { in: 0.3, out: 0.5 },
  supply: { plus: 0.9, minus: 0.03 },
  diode: { k: 0.15, a: 0.1 },
};
const USUALLY_ON_SUPPLY = 0.02;

const shareOf = (table: typeof ON_GROUND, { part, pin }: NetPin, usual: number): number => {
  const row = table[part.kind];
  return row === undefined ? usual : (row[pin] ?? usual / 10);
};
export const groundShare = (pin: NetPin): number => shareOf(ON_GROUND, pin, USUALLY_ON_GROUND);
export const supplyShare = (pin: NetPin): number => shareOf(ON_SUPPLY, pin, USUALLY_ON_SUPPLY);

/** Pins that sense and carry no more than a bias current; two of different parts rarely meet. */
const SENSES: Readonly<Partial<Record<PartKind, readonly string[]>>> = {
  opamp: ['plus', 'minus'],
  bjt: ['b'],
  jfet: ['g'],
  mosfet: ['g'],
  triode: ['g'],
  pentode: ['g'],
  timer555: ['thr', 'trig', 'ctrl'],
};
/** Pins that drive; two of them never meet. */
const DRIVES: Readonly<Partial<Record<PartKind, readonly string[]>>> = {
  opamp: ['out'],
  timer555: ['out'],
  regulator: ['out'],
};
const isOne = (table: typeof SENSES, { part, pin }: NetPin) => table[part.kind]?.includes(pin) === true;

/** How much likelier than usual it is that two pins are one net. */
const FACTORS = {
  /** Both ends of one part. */
  samePart: 0.02,
  /** A follower's output on its inverting input, a wiper on an end, a diode-connected transistor. */
  strapped: 0.5,
  twoOutputs: 0.02,
  twoSensing: 0.4,
  plain: 1,
} as const;

const STRAPPED: Readonly<Partial<Record<PartKind, readonly string[]>>> = {
  opamp: ['minus out'],
  potentiometer: ['1 2', '2 3'],
  bjt: ['b c'],
  jfet: ['g s'],
  timer555: ['thr trig', 'dis thr', 'reset vcc'],
};

/** How much likelier than usual two pins are one net. */
export function pairFactor(one: NetPin, other: NetPin): number {
  if (one.part === other.part) {
    const pair = [one.pin, other.pin].sort().join(' ');
    return STRAPPED[one.part.kind]?.includes(pair) === true ? FACTORS.strapped : FACTORS.samePart;
  }
  if (isOne(DRIVES, one) && isOne(DRIVES, other)) return FACTORS.twoOutputs;
  if (isOne(SENSES, one) && isOne(SENSES, other)) return FACTORS.twoSensing;
  return FACTORS.plain;
}
