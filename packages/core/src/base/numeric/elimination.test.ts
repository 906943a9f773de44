import fc from 'fast-check';
import { Matrix, solve } from 'ml-matrix';
import { complex, lusolve, matrix, type Complex, type MathScalarType } from 'mathjs';
import { describe, expect, it } from 'vitest';
import { seeded } from '../../testing/circuits.ts';
import { planElimination, planPartialElimination } from './elimination-plan.ts';
import { factorComplex, solveComplex, solveComplexTransposed } from './eliminate-complex.ts';
import { solveDense, solveDenseAgain } from './eliminate-dense.ts';
import { backReal, factorReal, reduceReal, solveReal } from './eliminate-real.ts';
import { SparsePattern } from './sparse-pattern.ts';

/** A random sparse matrix as circuits have them: a strong diagonal, a few entries off it, some rows of sources. */
function randomSystem(size: number, seed: number) {
  const random = seeded(seed);
  const pattern = new SparsePattern();
  const dense = Array.from({ length: size }, () => new Array<number>(size).fill(0));
  const put = (r: number, c: number, v: number) => {
    pattern.slot(r + 1, c + 1);
    dense[r]![c]! += v;
  };
  for (let i = 0; i < size; i += 1) {
    put(i, i, 1 + random() * 10);
    for (let k = 0; k < 3; k += 1) put(i, Math.floor(random() * size), random() - 0.5);
  }
  const values = new Float64Array(pattern.length);
  for (let s = 1; s < pattern.length; s += 1)
    values[s] = dense[pattern.rows[s]! - 1]![pattern.columns[s]! - 1]!;
  const b = Array.from({ length: size }, () => random() * 2 - 1);
  return { pattern, dense, values, b };
}

const sizes = fc.record({ size: fc.integer({ min: 1, max: 24 }), seed: fc.nat() });

function scaleOf(pattern: SparsePattern, size: number, values: Float64Array): Float64Array {
  const scale = new Float64Array(size + 1);
  for (let s = 1; s < pattern.length; s += 1)
    scale[pattern.columns[s]!] = Math.max(scale[pattern.columns[s]!]!, Math.abs(values[s]!));
  return scale;
}

describe('planned elimination', () => {
  it('solves real systems as a linear algebra library does, to 1e-9', () => {
    fc.assert(
      fc.property(sizes, ({ size, seed }) => {
        const { pattern, dense, values, b } = randomSystem(size, seed);
        const planned = planElimination(pattern, size, values);
        expect(planned.ok).toBe(true);
        if (!planned.ok) return;
        const lu = new Float64Array(planned.plan.length);
        lu.set(values);
        expect(factorReal(planned.plan, lu, scaleOf(pattern, size, values))).toBe(-1);
        const x = new Float64Array(size + 1);
        solveReal(planned.plan, lu, Float64Array.from([0, ...b]), x);
        const reference = solve(new Matrix(dense), Matrix.columnVector(b)).to1DArray();
        reference.forEach((value, i) => expect(x[i + 1]!).toBeCloseTo(value, 9));
      }),
      { numRuns: 120 },
    );
  });

  it('eliminates a part once and the rest as a dense block, with the answer of a library', () => {
    fc.assert(
      fc.property(sizes, fc.integer({ min: 0, max: 8 }), ({ size, seed }, keeps) => {
        const { pattern, dense, values, b } = randomSystem(size, seed);
        const random = seeded(seed + 7);
        const kept = new Set(Array.from({ length: keeps }, () => 1 + Math.floor(random() * size)));
        const { plan, rows, columns, slots } = planPartialElimination(pattern, size, values, kept, kept);
        expect([...kept].every((k) => rows.includes(k) && columns.includes(k))).toBe(true);
        expect(plan.size + rows.length).toBe(size);
        const lu = new Float64Array(plan.length);
        lu.set(values);
        expect(factorReal(plan, lu, scaleOf(pattern, size, values))).toBe(-1);
        const reduced = Float64Array.from([0, ...b]);
        reduceReal(plan, lu, reduced);
        const block = Float64Array.from(slots, (slot) => (slot === 0 ? 0 : lu[slot]!));
        const rest = Float64Array.from(rows, (row) => reduced[row]!);
        expect(solveDense(block, rest, rows.length, new Int32Array(rows.length))).toBe(-1);
        const x = new Float64Array(size + 1);
        columns.forEach((column, i) => (x[column] = rest[i]!));
        backReal(plan, lu, reduced, x);
        const reference = solve(new Matrix(dense), Matrix.columnVector(b)).to1DArray();
        reference.forEach((value, i) => expect(x[i + 1]!).toBeCloseTo(value, 8));
      }),
      { numRuns: 120 },
    );
  });

  it('exchanges rows in a dense block, and names the column without a pivot', () => {
    // A source's equation has a zero on the diagonal.
    const b = Float64Array.from([3, 5]);
    expect(solveDense(Float64Array.from([0, 2, 1, 1]), b, 2, new Int32Array(2))).toBe(-1);
    expect([...b]).toEqual([3.5, 1.5]);
    expect(solveDense(Float64Array.from([1, 2, 2, 4]), Float64Array.from([1, 1]), 2, new Int32Array(2))).toBe(
      1,
    );
  });

  it('solves again with the factors of a dense block as a library does', () => {
    const entry = fc.double({ min: -1, max: 1, noNaN: true });
    fc.assert(
      fc.property(fc.array(entry, { minLength: 35, maxLength: 35 }), (entries) => {
        const rows = [0, 1, 2, 3, 4].map((r) =>
          entries.slice(5 * r, 5 * r + 5).map((v, c) => (c === (r + 2) % 5 ? v + 6 : v)),
        );
        const a = Float64Array.from(rows.flat());
        const exchanged = new Int32Array(5);
        expect(solveDense(a, Float64Array.from(entries.slice(25, 30)), 5, exchanged)).toBe(-1);
        const b = entries.slice(30);
        const x = Float64Array.from(b);
        solveDenseAgain(a, x, 5, exchanged);
        const reference = solve(new Matrix(rows), Matrix.columnVector(b)).to1DArray();
        reference.forEach((value, i) => expect(x[i]!).toBeCloseTo(value, 9));
      }),
    );
  });

  it('solves complex systems and their transposes as a library does', () => {
    fc.assert(
      fc.property(sizes, ({ size, seed }) => {
        const { pattern, dense, values, b } = randomSystem(size, seed);
        const random = seeded(seed + 1);
        const imaginary = new Float64Array(values.length).map(() => random() - 0.5);
        const planned = planElimination(pattern, size, values);
        if (!planned.ok) throw new Error('singular');
        const re = new Float64Array(planned.plan.length);
        const im = new Float64Array(planned.plan.length);
        re.set(values);
        im.set(imaginary);
        im[0] = 0;
        factorComplex(planned.plan, re, im, scaleOf(pattern, size, values));
        const rows: Complex[][] = dense.map((row) => row.map((v) => complex(v, 0)));
        for (let s = 1; s < pattern.length; s += 1)
          rows[pattern.rows[s]! - 1]![pattern.columns[s]! - 1]!.im = imaginary[s]!;
        for (const isTransposed of [false, true]) {
          const [xRe, xIm] = [new Float64Array(size + 1), new Float64Array(size + 1)];
          const run = isTransposed ? solveComplexTransposed : solveComplex;
          run(planned.plan, re, im, Float64Array.from([0, ...b]), new Float64Array(size + 1), xRe, xIm);
          const system = isTransposed ? rows[0]!.map((_, c) => rows.map((row) => row[c]!)) : rows;
          const reference = lusolve(matrix(system), b).toArray() as MathScalarType[][];
          reference.forEach(([value], i) => {
            const wanted = complex(String(value));
            expect(xRe[i + 1]!).toBeCloseTo(wanted.re, 9);
            expect(xIm[i + 1]!).toBeCloseTo(wanted.im, 9);
          });
        }
      }),
      { numRuns: 40 },
    );
  });

  it('names the unknown at which a matrix is singular', () => {
    const pattern = new SparsePattern();
    const values = new Float64Array(5);
    // Two nodes joined by a conductance, neither joined to ground.
    [pattern.slot(1, 1), pattern.slot(1, 2), pattern.slot(2, 1), pattern.slot(2, 2)].forEach(
      (s, i) => (values[s] = [0.3, -0.3, -0.3, 0.3][i]!),
    );
    const planned = planElimination(pattern, 2, values);
    expect(planned.ok).toBe(false);
    expect(!planned.ok && [1, 2]).toContain(!planned.ok && planned.column);
  });

  it('fills little in on a ladder: the work grows with its length, not faster', () => {
    const ladder = (size: number) => {
      const pattern = new SparsePattern();
      for (let i = 1; i <= size; i += 1) {
        pattern.slot(i, i);
        if (i > 1) [pattern.slot(i, i - 1), pattern.slot(i - 1, i)].forEach(() => undefined);
      }
      const values = new Float64Array(pattern.length).map((_, s) =>
        pattern.rows[s] === pattern.columns[s] ? 3 : -1,
      );
      const planned = planElimination(pattern, size, values);
      return planned.ok ? planned.plan.program.length : Number.NaN;
    };
    expect(ladder(80) / ladder(20)).toBeLessThan(4.2);
  });
});
