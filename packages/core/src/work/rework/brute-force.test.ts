import { describe, expect, it } from 'vitest';
import { AnalysisSession } from '../../analysis/analysis/index.ts';
import { seededRandom } from '../../base/numeric/index.ts';
import { resolveLayer, withPlanned } from '../../circuit/changes/index.ts';
import type { Circuit } from '../../circuit/circuit/index.ts';
import { preferredBetween } from '../../base/quantity/index.ts';
import { evaluateReadout, outsideBy, type Readout, type Want } from '../../analysis/readouts/index.ts';
import { circuitOf } from '../../testing/circuits.ts';
import { solve } from './solver.ts';

/** Shapes of circuits with three parts that set two things; the values around them are drawn. */
const SHAPES: readonly {
  readonly lines: (value: () => string) => string;
  readonly may: readonly string[];
  readonly readouts: readonly Readout[];
}[] = [
  {
    lines: (v) => `V1 15V vp 0\nV2 15V 0 vm\nG1 10mV in 0\nR1 ${v()} in b\nC1 100n b 0\nR4 220k b 0
      U1 TL072 plus=b minus=m out=out vplus=vp vminus=vm\nR2 ${v()} m 0\nR3 ${v()} out m`,
    may: ['R1', 'R2', 'R3'],
    readouts: [
      { id: 'a', name: 'Gain', kind: 'gain', from: 'in', to: 'out', frequencyHz: 100 },
      { id: 'b', name: 'Treble', kind: 'gain', from: 'in', to: 'out', frequencyHz: 3000 },
    ],
  },
  {
    lines: (v) => `V1 12V vcc 0\nG1 10mV in 0\nC1 1u in b\nR1 220k vcc b\nR2 47k b 0
      Q1 2N3904 c b e\nR3 ${v()} vcc c\nR4 ${v()} e f\nR5 ${v()} f 0\nC2 100u f 0\nR6 100k c 0`,
    may: ['R3', 'R4', 'R5'],
    readouts: [
      { id: 'a', name: 'Gain', kind: 'gain', from: 'in', to: 'c', frequencyHz: 1000 },
      { id: 'b', name: 'Collector', kind: 'voltage', net: 'c' },
    ],
  },
  {
    lines: (v) => `G1 1V in 0\nR1 ${v()} in m\nR2 ${v()} m out\nR3 ${v()} m 0\nRL1 kind=resistor 10k out 0`,
    may: ['R1', 'R2', 'R3'],
    readouts: [
      { id: 'a', name: 'Gain', kind: 'gain', from: 'G1', to: 'out', frequencyHz: 1000 },
      { id: 'b', name: 'In', kind: 'inputImpedance', source: 'G1', frequencyHz: 1000 },
    ],
  },
  {
    lines: (v) => `G1 1V in 0\nR1 ${v()} in m\nC1 10n m 0\nR2 ${v()} m out\nC2 10n out 0\nR3 ${v()} out 0`,
    may: ['R1', 'R2', 'R3'],
    readouts: [
      { id: 'a', name: 'Level', kind: 'gain', from: 'in', to: 'out', frequencyHz: 50 },
      { id: 'b', name: 'Corner', kind: 'corner', from: 'in', to: 'out', side: 'high', referenceHz: 50 },
    ],
  },
];
const SEEDS = Array.from({ length: 50 }, (_, i) => i);

/** Two goals that some E12 values near the start meet: what those give, give or take a little. */
function posed(seed: number) {
  const random = seededRandom(seed + 1);
  const shape = SHAPES[seed % SHAPES.length]!;
  const e12 = preferredBetween(1_000, 47_000, 'E12');
  const pick = () => `${e12[Math.floor(random() * e12.length)]!}`;
  const circuit = circuitOf(shape.lines(pick));
  const start = new AnalysisSession(resolveLayer(circuit, 'marked'));
  const homes = shape.may.map((ref) => Number(circuit.parts.find((p) => p.ref === ref)!.marked));
  for (;;) {
    const values = new Map(
      shape.may.map((ref, i) => {
        const near = preferredBetween(homes[i]! / 4, homes[i]! * 4, 'E12');
        return [ref, near[Math.floor(random() * near.length)]!];
      }),
    );
    const there = shape.readouts.map((r) => evaluateReadout(start.with({ values }), r));
    if (!there.every((a) => a.ok)) continue;
    const wants = there.map((a, i): Want => {
      const value = a.ok ? a.value : 0;
      const width =
        shape.readouts[i]!.kind === 'gain' ? 0.3 + random() : Math.abs(value) * (0.02 + 0.08 * random());
      const shift = width * (random() - 0.5);
      return { target: value + shift, within: width };
    });
    return { circuit, shape, homes, wants, start };
  }
}

const cost = (values: ReadonlyMap<string, number>, homes: ReadonlyMap<string, number>) =>
  [...values].reduce((sum, [ref, v]) => {
    const home = homes.get(ref)!;
    return v === home ? sum : sum + 1 + 0.6 * Math.abs(Math.log10(v / home));
  }, 0);

/** All E12 values within a factor of six of the present ones that meet both goals, and the least that soldering them costs. */
function bruteForce({ shape, homes, wants, start }: ReturnType<typeof posed>) {
  const grids = homes.map((home) => [...new Set([home, ...preferredBetween(home / 6, home * 6, 'E12')])]);
  const home = new Map(shape.may.map((ref, i) => [ref, homes[i]!]));
  let least = Number.POSITIVE_INFINITY;
  let count = 0;
  for (const a of grids[0]!)
    for (const b of grids[1]!)
      for (const c of grids[2]!) {
        const values = new Map(shape.may.map((ref, i) => [ref, [a, b, c][i]!]));
        const session = start.with({ values });
        const isIn = shape.readouts.every((r, i) => {
          const answer = evaluateReadout(session, r);
          return answer.ok && outsideBy(answer.value, wants[i]) === 0;
        });
        if (!isIn) continue;
        count += 1;
        least = Math.min(least, cost(values, home));
      }
  return { least, count };
}

describe('two goals by three parts', () => {
  it.each(SEEDS)('misses nothing that every combination of E12 finds (circuit %i)', (seed) => {
    const question = posed(seed);
    const { least } = bruteForce(question);
    const { proposals } = solve({
      circuit: question.circuit as Circuit,
      readouts: question.shape.readouts,
      layer: 'marked',
      goals: question.wants.map((want, i) => ({ readoutId: question.shape.readouts[i]!.id, want })),
      may: question.shape.may,
      series: 'E12',
      withPairs: false,
      most: 5,
    });
    const best = proposals[0];
    expect(Number.isFinite(least)).toBe(true);
    expect(best?.isInside).toBe(true);
    // Built anew with these values, the circuit reads what the proposal says.
    const values = new Map(best!.changes.map((c) => [c.ref, c.value]));
    const built = new AnalysisSession(resolveLayer(withPlanned(question.circuit, values), 'planned'));
    question.shape.readouts.forEach((r, i) => {
      const answer = evaluateReadout(built, r);
      expect(answer.ok && answer.value / best!.goals[i]!.value!).toBeCloseTo(1, 6);
    });
    const own = best!.changes.reduce((sum, c) => sum + 1 + 0.6 * Math.abs(Math.log10(c.value / c.from)), 0);
    expect(own).toBeLessThanOrEqual(least + 1e-6);
  });
});
