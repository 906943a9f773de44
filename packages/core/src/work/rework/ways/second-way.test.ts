import type { Part, Readout, Step } from '@zemble/contract';
import {
  add,
  complex,
  divide,
  lusolve,
  matrix,
  multiply,
  subtract,
  type Complex,
  type MathScalarType,
} from 'mathjs';
import { describe, expect, it } from 'vitest';
import { circuitOf, seeded } from '../../../testing/circuits.ts';
import { waysAtPlaces } from '../../../testing/ways-at-places.ts';

/**
 * What a way promises, computed a second time with nothing of the first: the steps are made by hand on the parts, the equations
 * of the nets written down here and solved by mathjs. Linear circuits: resistors, capacitors, coils, pots, contacts, sources
 * and a TL072 by its data (AOL 2e5, GBW 3 MHz, 100 ohm, 1e12 ohm, 65 pA, 1.4 mA).
 */
type Bench = ReadonlyMap<string, Part>;

function madeBy(parts: readonly Part[], steps: readonly Step[]): Bench {
  const bench = new Map(parts.map((p) => [p.ref, p]));
  for (const step of steps) {
    if (step.do === 'add') bench.set(step.part.ref, step.part);
    else if (step.do === 'remove') bench.delete(step.ref);
    else if (step.do === 'fit') bench.set(step.ref, { ...bench.get(step.ref)!, marked: step.value } as Part);
    else if (step.do === 'move') {
      const [ref = '', pin = ''] = step.pin.split('.');
      const part = bench.get(ref)!;
      bench.set(ref, { ...part, pins: { ...part.pins, [pin]: step.to } });
    } else throw new Error(`no way is known here to make a step "${step.do}"`);
  }
  return bench;
}

const OPAMP = { gain: 2e5, gbw: 3e6, out: 100, input: 1e12, bias: 6.5e-11, own: 1.4e-3 };
const NOTHING = complex(0, 0);
const plain = (value: MathScalarType): Complex => complex(value as Complex);

/** Volts of the nets at a frequency, with a number for each source by its designator and currents into nets; at 0 Hz with bias. */
function solved(
  bench: Bench,
  hz: number,
  volts: ReadonlyMap<string, number>,
  amperes: ReadonlyMap<string, number> = new Map(),
): (net: string) => Complex {
  const parts = [...bench.values()];
  const nets = [...new Set(parts.flatMap((p) => Object.values(p.pins)))].filter((net) => net !== '0');
  const forced = parts.filter((p) => p.kind === 'supply' || p.kind === 'signal' || p.kind === 'opamp');
  const n = nets.length + forced.length;
  const g: Complex[][] = Array.from({ length: n }, () => Array.from({ length: n }, () => NOTHING));
  const b: Complex[] = Array.from({ length: n }, () => NOTHING);
  const at = (net: string | undefined) => (net === undefined || net === '0' ? -1 : nets.indexOf(net));
  const put = (row: number, column: number, value: Complex | number) => {
    if (row >= 0 && column >= 0) g[row]![column] = plain(add(g[row]![column]!, value) as Complex);
  };
  const pair = (one: string | undefined, two: string | undefined, s: Complex | number) => {
    const minus = multiply(s, -1) as Complex;
    put(at(one), at(one), s);
    put(at(two), at(two), s);
    put(at(one), at(two), minus);
    put(at(two), at(one), minus);
  };
  const w = 2 * Math.PI * hz;
  parts.forEach((part) => {
    const { a, b: end, 1: one, 2: wiper, 3: three } = part.pins;
    const value = typeof part.marked === 'number' ? part.marked : 0;
    if (part.kind === 'resistor' || part.kind === 'load') pair(a, end, 1 / value);
    else if (part.kind === 'capacitor') pair(a, end, complex(0, w * value));
    else if (part.kind === 'inductor')
      pair(a, end, plain(divide(1, complex(Math.max(part.dcr ?? 0, 1e-3), w * value)) as Complex));
    else if (part.kind === 'switch') pair(a, end, part.closed === false ? 1e-12 : 1e3);
    else if (part.kind === 'potentiometer') {
      const x = part.position ?? 0.5;
      pair(one, wiper, 1 / (value * Math.max(x, 1e-4)));
      pair(wiper, three, 1 / (value * Math.max(1 - x, 1e-4)));
    } else if (!forced.some((f) => f === part)) throw new Error(`no law of ${part.ref} is known here`);
  });
  // Nothing hangs quite in the air.
  nets.forEach((_, k) => put(k, k, 1e-12));
  forced.forEach((part, k) => {
    const row = nets.length + k;
    if (part.kind === 'opamp') {
      const { plus, minus, out } = part.pins;
      pair(plus, minus, 1 / OPAMP.input);
      const into = (net: string | undefined, ampere: number) => {
        if (hz === 0 && at(net) >= 0) b[at(net)] = plain(add(b[at(net)]!, ampere) as Complex);
      };
      for (const net of [plus, minus]) into(net, -OPAMP.bias);
      into(part.pins.vplus, -OPAMP.own);
      into(part.pins.vminus, OPAMP.own);
      const open = plain(divide(OPAMP.gain, complex(1, (OPAMP.gain * hz) / OPAMP.gbw)) as Complex);
      put(at(out), row, -1);
      put(row, at(out), 1);
      put(row, row, OPAMP.out);
      put(row, at(plus), multiply(open, -1) as Complex);
      put(row, at(minus), open);
      return;
    }
    const { plus, minus } = part.pins;
    const ohm = part.resistance ?? 0;
    put(at(plus), row, 1);
    put(at(minus), row, -1);
    put(row, at(plus), 1);
    put(row, at(minus), -1);
    put(row, row, -ohm);
    b[row] = complex(volts.get(part.ref) ?? 0, 0);
  });
  for (const [net, ampere] of amperes) b[at(net)] = complex(ampere, 0);
  const x = lusolve(matrix(g), b).valueOf() as MathScalarType[][];
  return (net) => (net === '0' ? NOTHING : plain(x[at(net)]![0]!));
}

const size = (value: Complex) => Math.hypot(value.re, value.im);
const decibel = (ratio: number) => 20 * Math.log10(ratio);

/** A readout as its definition says it, of the kinds that linear circuits promise. */
function second(bench: Bench, readout: Readout): number {
  const supplies = new Map(
    [...bench.values()].flatMap((p) => (p.kind === 'supply' ? [[p.ref, Number(p.marked)] as const] : [])),
  );
  const tone = (from: string, to: string, hz: number, toMinus = '0') => {
    const isSource = bench.get(from)?.kind === 'signal';
    const drive = isSource ? from : [...bench.values()].find((p) => p.kind === 'signal')!.ref;
    const volt = solved(bench, hz, new Map([[drive, 1]]));
    const across = size(plain(subtract(volt(to), volt(toMinus)) as Complex));
    return isSource ? across : across / size(volt(from));
  };
  switch (readout.kind) {
    case 'gain':
      return decibel(tone(readout.from!, readout.to!, readout.frequencyHz!, readout.toMinus));
    case 'voltage':
      return solved(bench, 0, supplies)(readout.net!).re;
    case 'current': {
      const { pins, marked } = bench.get(readout.part!)!;
      const volt = solved(bench, 0, supplies);
      return (volt(pins.a!).re - volt(pins.b!).re) / Number(marked);
    }
    case 'dissipation': {
      const { pins, marked } = bench.get(readout.part!)!;
      const volt = solved(bench, 0, supplies);
      return (volt(pins.a!).re - volt(pins.b!).re) ** 2 / Number(marked);
    }
    case 'outputImpedance':
      return size(solved(bench, readout.frequencyHz!, new Map(), new Map([[readout.net!, 1]]))(readout.net!));
    case 'ripple':
      return size(
        solved(bench, readout.frequencyHz!, new Map([[readout.source!, readout.sourceV!]]))(readout.net!),
      );
    case 'corner': {
      const step = readout.side === 'low' ? 1 / 1.5 : 1.5;
      const wanted = tone(readout.from!, readout.to!, 1000) / 10 ** (3 / 20);
      const isInside = (hz: number) => tone(readout.from!, readout.to!, hz) > wanted;
      let [inside, hz] = [1000, 1000 * step];
      while (isInside(hz) && hz > 0.01 && hz < 1e7) [inside, hz] = [hz, hz * step];
      for (let i = 0; i < 12; i += 1) {
        const middle = Math.sqrt(inside * hz);
        if (isInside(middle)) inside = middle;
        else hz = middle;
      }
      return hz;
    }
    default:
      throw new Error(`no law of ${readout.kind} is known here`);
  }
}

/** A linear circuit as it is drawn by chance: a source, stages that invert or do not, pots and networks, rails, a load. */
function drawn(seed: number): string {
  const random = seeded(seed);
  const pick = <T>(items: readonly T[]): T => items[Math.floor(random() * items.length)]!;
  const ohms = () => `${pick(['1', '2.2', '4.7', '10', '22', '47'])}k`;
  const foot = pick(['0', '0', 'vr']);
  const lines = [
    'V1 12V vp 0',
    'V2 12V 0 vm',
    'V3 2V vr 0',
    `G1 10mV in 0 resistance=${pick(['1', '600', '10k'])}`,
  ];
  lines.push(`C1 ${pick(['100n', '470n', '1u'])} in p`, `R1 ${pick(['47k', '100k', '1M'])} p ${foot}`);
  if (random() < 0.5) lines.push(`P1 100k 1=${foot} 2=q 3=p position=0.7`, 'R2 220k q p');
  const supply = 'vplus=vp vminus=vm';
  if (random() < 0.5)
    lines.push(`U1 TL072 plus=p minus=m out=o ${supply}`, `R3 ${ohms()} m ${foot}`, `R4 ${ohms()} m o`);
  else lines.push(`R3 ${ohms()} p m`, `U1 TL072 plus=${foot} minus=m out=o ${supply}`, `R4 ${ohms()} m o`);
  if (random() < 0.5) lines.push('C4 100p m o');
  lines.push(
    `R5 ${pick(['100', '1k', '4.7k'])} o x`,
    `C5 ${pick(['1u', '10u'])} x out`,
    `R6 ${ohms()} out 0`,
  );
  if (random() < 0.4) lines.push('C6 1n x 0');
  lines.push('R8 100k ctl 0');
  return lines.join('\n');
}

/** Circuits that are drawn: more by `ZEMBLE_WAYS`. */
const CIRCUITS = Number(process.env.ZEMBLE_WAYS ?? 8);
/** Ways with parts that bend, or that take a run in time, stand under their own tests. */
const BENDING = new Set(['led-resistor', 'plug-in-booster', 'mute-relay', 'supply-regulator']);

describe('what a way promises', () => {
  it('is what a second computation finds, which shares nothing with the first', () => {
    const kinds = new Map<string, number>();
    for (let seed = 1; seed <= CIRCUITS; seed += 1) {
      const circuit = circuitOf(drawn(seed));
      const isTried = ({ id }: { id: string }) => !BENDING.has(id);
      for (const { way, chosen, made } of waysAtPlaces(circuit, { isTried })) {
        if (!made) continue;
        const bench = madeBy(circuit.parts, made.steps);
        for (const { readout, value, unit } of made.promises) {
          const truth = second(bench, readout);
          const what = `${way.id} at ${JSON.stringify(chosen)} of ${seed}: ${readout.kind}`;
          const allowed = unit === 'dB' ? 0.1 : 0.01 * Math.abs(value) + (unit === 'V' ? 0.01 : 1e-9);
          expect(Math.abs(truth - value), what).toBeLessThanOrEqual(allowed);
          kinds.set(way.id, (kinds.get(way.id) ?? 0) + 1);
        }
      }
    }
    for (const id of [
      'gain-by-feedback',
      'gain-by-pot',
      'gain-by-switch',
      'bass-corner',
      'treble-corner',
      'pad',
      'pull-up',
    ])
      expect(kinds.get(id), id).toBeGreaterThan(0);
  });
});
