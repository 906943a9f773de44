import { resolveLayer } from '../circuit/index.ts';
import { Matrix, solve } from 'ml-matrix';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { solveDense } from '../numeric/index.ts';
import { markedCircuitOf, randomCircuit, seeded } from '../testing/circuits.ts';
import { expand, reduce, ReducedSystem, type ReducedStep } from './reduced-system.ts';
import { System } from './system.ts';

/** The solution of (G + scale C) x = b by the reduced equations. */
function solved(step: ReducedStep, b: Float64Array): Float64Array {
  const { rows, columns } = step.reduction.partial;
  const known = Float64Array.from(b);
  reduce(step, known);
  const rest = Float64Array.from(rows, (row) => known[row]!);
  expect(solveDense(Float64Array.from(step.block), rest, rows.length, new Int32Array(rows.length))).toBe(-1);
  const x = new Float64Array(b.length);
  columns.forEach((column, i) => (x[column] = rest[i]!));
  expand(step, known, x);
  return x;
}

/** The same by a general library on the dense matrix. */
function byLibrary(system: System, scale: number, b: Float64Array): number[] {
  const dense = Matrix.zeros(system.size, system.size);
  const { g, c } = system.linear;
  for (let slot = 1; slot < g.length; slot += 1) {
    const [row, column] = [system.rowOf[slot]! - 1, system.columnOf[slot]! - 1];
    dense.set(row, column, dense.get(row, column) + g[slot]! + scale * c[slot]!);
  }
  return solve(dense, Matrix.columnVector([...b.slice(1)])).to1DArray();
}

describe('the constant part, reduced', () => {
  it('has the solution of a linear algebra library, for steps from nanoseconds to seconds', () => {
    const system = new System(
      markedCircuitOf(
        'G1 1V in 0\nR1 1k in a\nL1 10m a b\nC1 100n b 0\nR2 10k b c\nC2 1u c 0\nR3 47k c 0\nP1 10k 1=c 2=w 3=0',
      ),
    );
    const reduced = new ReducedSystem(system);
    fc.assert(
      fc.property(fc.double({ min: 0, max: 9, noNaN: true }), fc.nat(), (decade, seed) => {
        const random = seeded(seed);
        const b = Float64Array.from({ length: system.size + 1 }, (_, i) => (i === 0 ? 0 : random() - 0.5));
        const scale = 10 ** decade;
        const step = reduced.at(scale) as ReducedStep;
        const x = solved(step, b);
        byLibrary(system, scale, b).forEach((value, i) =>
          expect(Math.abs(x[i + 1]! - value)).toBeLessThanOrEqual(1e-7 * (1 + Math.abs(value))),
        );
      }),
      { numRuns: 60 },
    );
  });

  it('keeps what non-linear devices touch, and leaves little of a circuit without them', () => {
    const active = new System(
      markedCircuitOf(
        'V1 9V vcc 0\nR1 10k vcc c\nQ1 2N3904 c b e\nR2 1k e 0\nR3 100k vcc b\nR4 10k x 0\nC1 1u c x',
      ),
    );
    const step = new ReducedSystem(active).at(1e5) as ReducedStep;
    const touched = new Set([...active.loadedSlots].flatMap((s) => [active.rowOf[s]!, active.columnOf[s]!]));
    const { rows, columns } = step.reduction.partial;
    for (const k of touched) expect(rows.includes(k) && columns.includes(k)).toBe(true);
    expect(rows.length).toBeLessThan(active.size);
    const passive = new ReducedSystem(new System(markedCircuitOf('G1 1V a 0\nR1 1k a b\nC1 1n b 0')));
    expect((passive.at(1e6) as ReducedStep).reduction.partial.rows).toHaveLength(0);
  });

  it('gives the equations of a step length once, and those of many lengths without end', () => {
    const reduced = new ReducedSystem(new System(resolveLayer(randomCircuit(3, 2), 'marked')));
    const first = reduced.at(1e5);
    expect(reduced.at(1e5)).toBe(first);
    for (let i = 0; i < 40; i += 1) expect(typeof reduced.at(1e5 * (1 + i / 10))).toBe('object');
    expect(reduced.at(1e5)).not.toBe(first);
  });
});
