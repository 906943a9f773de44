import {
  READOUT_COMMON_FIELDS,
  READOUT_KINDS,
  readoutDefinitionOf,
  type Field,
  type Readout,
  type ReadoutKind,
} from '@zemble/contract';
import { describe, expect, it } from 'vitest';
import { AnalysisSession } from '../analysis/index.ts';
import { resolveLayer } from '../../circuit/changes/index.ts';
import { type Circuit, type Setting, type Value } from '../../circuit/circuit/index.ts';
import { parseValue } from '../../base/quantity/index.ts';
import { circuitOf, randomCircuit, seeded } from '../../testing/circuits.ts';
import { evaluateReadout, type ReadoutAnswer } from './index.ts';

/** A sort of circuit, random but for the names that readouts may ask for. */
interface Sort {
  readonly circuit: Circuit;
  readonly source?: string;
  readonly out: string;
  readonly supply: string;
  readonly load: string;
  /** Of the readout that a range is of. */
  readonly ranged: 'gain' | 'rate';
}

const spread = (random: () => number, value: number) => value * Math.exp((random() - 0.5) * 1.2);

const SORTS: Readonly<Record<string, (seed: number) => Sort>> = {
  'an amplifier with a volume control': (seed) => {
    const stages = randomCircuit(seed, 1 + (seed % 3));
    const control = circuitOf(
      'P1 100k 0 w out 50%\nCO1 w x y\nR901 10k x last\nR902 22k y last\nR900 47k last 0',
    );
    const circuit = { ...stages, parts: [...stages.parts, ...control.parts] };
    return { circuit, source: 'G1', out: 'last', supply: 'V1', load: 'R900', ranged: 'gain' };
  },
  'a clipper': (seed) => {
    const random = seeded(seed);
    const circuit = circuitOf(`
      V1 9V vcc 0
      G1 500mV 1kHz in 0 resistance=${spread(random, 1e4)}
      C1 ${spread(random, 1e-7)} in a
      R1 ${spread(random, 1e4)} a b
      D1 1N4148 b 0
      D2 1N4148 0 b
      P1 ${spread(random, 1e5)} 0 out b 60%
      CO1 out x y
      R2 ${spread(random, 1e5)} x 0
      R3 ${spread(random, 2e5)} y 0
      R4 ${spread(random, 1e5)} vcc b`);
    return { circuit, source: 'G1', out: 'out', supply: 'V1', load: 'R4', ranged: 'gain' };
  },
  'a 555 oscillator': (seed) => {
    const random = seeded(seed);
    const circuit = circuitOf(`
      V1 9V vcc 0
      TM1 kind=timer555 gnd=0 trig=c out=out reset=vcc ctrl=v thr=c dis=d vcc=vcc
      R1 ${spread(random, 1e4)} vcc d
      P1 ${spread(random, 1e5)} d e e 50%
      R2 ${spread(random, 2e4)} e f
      CO1 f c y
      R9 ${spread(random, 1e4)} y c
      C1 ${spread(random, 1e-8)} c 0
      C2 ${spread(random, 1e-8)} v 0
      R3 10k out 0`);
    return { circuit, out: 'out', supply: 'V1', load: 'R3', ranged: 'rate' };
  },
  'a chip whose rate a resistor sets': (seed) => {
    const random = seeded(seed);
    const circuit = circuitOf(`
      V1 9V vcc 0
      R1 ${spread(random, 1e4)} vcc 0
      R2 ${spread(random, 1e4)} s a
      CO1 a x y
      R3 ${spread(random, 1e4)} x b
      R4 ${spread(random, 3e4)} y b
      P1 ${spread(random, 1e5)} b 0 0 40%
      CLK1 rset=s gnd=0 ratedHz=1M ratedOhm=47k`);
    return { circuit, out: 'vcc', supply: 'V1', load: 'R1', ranged: 'rate' };
  },
  'a switch-on delay': (seed) => {
    const random = seeded(seed);
    const circuit = circuitOf(`
      V1 9V vcc 0
      R1 ${spread(random, 1e5)} vcc out
      C1 ${spread(random, 1e-6)} polarised out 0
      R2 ${spread(random, 1e6)} out 0
      Q1 2N3904 k out e
      R3 ${spread(random, 1e4)} vcc k
      R4 ${spread(random, 1e3)} e 0
      P1 100k 0 w k 50%
      CO1 w x y
      R5 100k x 0
      R6 100k y 0`);
    return { circuit, out: 'out', supply: 'V1', load: 'R3', ranged: 'gain' };
  },
};

const SETTINGS: readonly Setting[] = [
  { id: 'one', controls: { CO1: 'a' } },
  { id: 'two', controls: { CO1: 'b' } },
];
const RANGED = 'ranged';

/** A value for a field of a readout by what it is of; undefined leaves it out. */
function valueFor(name: string, field: Field, sort: Sort, random: () => number): unknown {
  if (!field.isNeeded && random() < 0.5) return undefined;
  switch (field.type) {
    case 'quantity': {
      const parsed = field.example === undefined ? null : parseValue(field.example, { kind: field.of });
      return parsed?.ok ? parsed.readings[0].value : (field.usual ?? 10 + random() * 50);
    }
    case 'word':
      return field.words[Math.floor(random() * field.words.length)];
    case 'flag':
      return random() < 0.7;
    case 'settings':
      return ['one', 'two'];
    case 'name':
      break;
    default:
      return undefined;
  }
  const { parts } = sort.circuit;
  const nets = [...new Set(parts.flatMap((p) => Object.values(p.pins)))].filter((n) => n !== '0');
  const any = <T>(list: readonly T[]) => list[Math.floor(random() * list.length)]!;
  switch (field.of) {
    case 'net or source':
      return random() < 0.5 ? (sort.source ?? 'vcc') : 'in';
    case 'source':
      return sort.source;
    case 'supply':
      return sort.supply;
    case 'readout':
      return RANGED;
    case 'control':
      return 'P1';
    case 'setting':
      return 'two';
    case 'part':
      return name === 'load' ? sort.load : any(parts).ref;
    case 'net':
      return name === 'leak' || name === 'toMinus' ? any(nets) : sort.out;
  }
}

function randomReadout(kind: ReadoutKind, sort: Sort, random: () => number): Readout {
  const fields = { ...readoutDefinitionOf(kind).fields, ...READOUT_COMMON_FIELDS };
  const values = Object.entries(fields).map(([name, field]) => [name, valueFor(name, field, sort, random)]);
  return { ...Object.fromEntries(values), id: 'it', name: 'It', kind } as Readout;
}

const rangedReadout = (sort: Sort): Readout =>
  sort.ranged === 'rate'
    ? {
        id: RANGED,
        name: 'Rate',
        kind: 'rate',
        ...(sort.out === 'vcc' ? { part: 'CLK1' } : { net: sort.out }),
      }
    : { id: RANGED, name: 'Gain', kind: 'gain', from: sort.source ?? 'vcc', to: sort.out, frequencyHz: 1000 };

/** Some parts of a circuit a little larger or smaller, a potentiometer as a whole. */
function someTurned(circuit: Circuit, random: () => number): Map<string, Value> {
  const parts = circuit.parts.filter((p) => ['resistor', 'capacitor', 'potentiometer'].includes(p.kind));
  const turned = new Map<string, Value>();
  for (let i = 0; i < 4; i += 1) {
    const part = parts[Math.floor(random() * parts.length)]!;
    turned.set(part.ref, spread(random, Number(part.marked)));
  }
  return turned;
}

const told = (answer: ReadoutAnswer) => (answer.ok ? answer.value : answer.problem.code);

describe('a session with other values', () => {
  const numbers = new Map<ReadoutKind, number>();
  const check = (kind: ReadoutKind, sortName: string, seed: number): void => {
    const sort = SORTS[sortName]!(seed);
    const random = seeded(seed * 7919 + READOUT_KINDS.indexOf(kind));
    const readout = randomReadout(kind, sort, random);
    const around = { readouts: [rangedReadout(sort), readout], settings: SETTINGS };
    const circuit = resolveLayer(sort.circuit, 'marked');
    const session = new AnalysisSession(circuit);
    const before = evaluateReadout(session, readout, around);
    const values = someTurned(sort.circuit, random);
    const turned = evaluateReadout(session.with({ values }), readout, around);
    const parts = circuit.parts.map((p) => {
      const value = values.get(p.ref);
      return value === undefined ? p : { ...p, value };
    });
    const fresh = evaluateReadout(new AnalysisSession({ ...circuit, parts }), readout, around);
    const about = `${sortName}, seed ${seed}: ${JSON.stringify(readout)}`;
    if (fresh.ok && turned.ok) {
      const scale = Math.max(Math.abs(fresh.value), 1e-9);
      expect(Math.abs(turned.value - fresh.value) / scale, about).toBeLessThan(1e-5);
      numbers.set(kind, (numbers.get(kind) ?? 0) + 1);
    } else expect(told(turned), about).toEqual(told(fresh));
    // The session it was made from is as it was.
    const after = evaluateReadout(session, readout, around);
    if (before.ok && after.ok)
      expect(Math.abs(after.value - before.value), about).toBeLessThanOrEqual(
        1e-6 * Math.abs(before.value) + 1e-12,
      );
    else expect(told(after), about).toEqual(told(before));
  };

  it.each(READOUT_KINDS)(
    'answers %s as a circuit built with them does, and leaves the first as it was',
    (kind) => {
      const { isSlow } = readoutDefinitionOf(kind);
      for (let seed = 1; seed <= MOST_SEEDS; seed += 1) {
        for (const sort of Object.keys(SORTS)) check(kind, sort, seed);
        if (isSlow && (numbers.get(kind) ?? 0) >= ENOUGH_SLOW) break;
      }
      expect(numbers.get(kind) ?? 0).toBeGreaterThan(0);
    },
    120_000,
  );
});

const MOST_SEEDS = 12;
/** Kinds that take runs in time are looked at until this many numbers were compared. */
const ENOUGH_SLOW = 3;
