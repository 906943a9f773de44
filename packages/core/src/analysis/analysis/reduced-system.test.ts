import { resolveLayer } from '../../circuit/changes/index.ts';

import { Matrix, solve } from 'ml-matrix';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { solveDense } from '../../base/numeric/index.ts';
import { markedCircuitOf, randomCircuit, seeded } from '../../testing/circuits.ts';
import { baseOf, ReducedSystem, type ReducedStep } from './reduced-system.ts';
import { System } from './system.ts';

/** The solution of (G + scale C) x = b by the reduced equations. */
function solved(reduced: ReducedSystem, step: ReducedStep, b: Float64Array): Float64Array {
  const { rows, columns } = step.reduction;
  const known = Float64Array.from(b);
  reduced.reduce(step, known);
  const rest = Float64Array.from(rows, (row) => known[row]!);
  expect(solveDense(Float64Array.from(step.block), rest, rows.length, new Int32Array(rows.length))).toBe(-1);
  const x = new Float64Array(b.length);
  baseOf(step, known, x);
  const { starts, of, factors } = step.spread;
  for (let k = 1; k < x.length; k += 1)
    for (let i = starts[k]!; i < starts[k + 1]!; i += 1) x[k] = x[k]! + factors[i]! * rest[of[i]!]!;
  expect(columns).toHaveLength(rows.length);
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
        const x = solved(reduced, step, b);
        byLibrary(system, scale, b).forEach((value, i) =>
          expect(Math.abs(x[i + 1]! - value)).toBeLessThanOrEqual(1e-7 * (1 + Math.abs(value))),
        );
      }),
      { numRuns: 60 },
    );
  });

  it('leaves as many unknowns as the devices have currents of their own', () => {
    const left = (lines: string) => {
      const step = new ReducedSystem(new System(markedCircuitOf(lines))).at(1e5) as ReducedStep;
      expect(step.reduction.columns).toHaveLength(step.reduction.rows.length);
      return step.reduction.rows.length;
    };
    const passive = 'G1 1V a 0\nR1 1k a b\nC1 1n b 0';
    expect(left(passive)).toBe(0);
    expect(left(`${passive}\nD1 1N4148 b c\nR2 1k c 0`)).toBe(1);
    expect(left(`${passive}\nD1 1N4148 b c\nD2 1N4148 c b\nR2 1k c 0`)).toBe(2);
    const stage =
      'V1 9V vcc 0\nR1 10k vcc c\nQ1 2N3904 c b e\nR2 1k e 0\nR3 100k vcc b\nR4 10k x 0\nC1 1u c x';
    expect(left(stage)).toBe(2);
    // A pair that shares its emitters: each transistor keeps its own two.
    expect(left(`${stage}\nQ2 2N3904 vcc b2 e\nR5 100k vcc b2`)).toBe(4);
  });

  it('gives the equations of a step length once, and those of many lengths without end', () => {
    const reduced = new ReducedSystem(new System(resolveLayer(randomCircuit(3, 2), 'marked')));
    const first = reduced.at(1e5);
    expect(reduced.at(1e5)).toBe(first);
    for (let i = 0; i < 40; i += 1) expect(typeof reduced.at(1e5 * (1 + i / 10))).toBe('object');
    expect(reduced.at(1e5)).not.toBe(first);
  });
});
