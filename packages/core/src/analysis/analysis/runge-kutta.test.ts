import { describe, expect, it } from 'vitest';
import { FOURTH_ORDER, FROM_A_JUMP, type Tableau } from './runge-kutta.ts';

/** A method as a full table, with the weights of the step and of the method below. */
function tableOf({ a, gamma, c, error }: Tableau) {
  const n = c.length;
  const isExplicit = c[0] === 0;
  const full = c.map((_, i) =>
    Array.from({ length: n }, (_unused, j) =>
      j < i ? a[i]![j]! : j === i && !(isExplicit && i === 0) ? gamma : 0,
    ),
  );
  const own = full[n - 1]!;
  return { full, c, own, lower: own.map((b, i) => b - error[i]!) };
}

/** What the trees of order one to four ask of the weights b (Butcher 1963). */
function conditions(full: readonly (readonly number[])[], c: readonly number[], b: readonly number[]) {
  const sum = (of: (i: number) => number) => c.reduce((s, _, i) => s + of(i), 0);
  const inner = (i: number, of: (j: number) => number) => sum((j) => full[i]![j]! * of(j));
  return {
    1: [sum((i) => b[i]!) - 1],
    2: [sum((i) => b[i]! * c[i]!) - 1 / 2],
    3: [sum((i) => b[i]! * c[i]! ** 2) - 1 / 3, sum((i) => b[i]! * inner(i, (j) => c[j]!)) - 1 / 6],
    4: [
      sum((i) => b[i]! * c[i]! ** 3) - 1 / 4,
      sum((i) => b[i]! * c[i]! * inner(i, (j) => c[j]!)) - 1 / 8,
      sum((i) => b[i]! * inner(i, (j) => c[j]! ** 2)) - 1 / 12,
      sum((i) => b[i]! * inner(i, (j) => inner(j, (k) => c[k]!))) - 1 / 24,
    ],
  };
}
const worst = (values: readonly number[]) => Math.max(...values.map(Math.abs));

/** Where one step takes dx/dt = lambda x from 1, with z = lambda h. */
function growth({ a, gamma, c }: Tableau, z: number): number {
  const slopes: number[] = [];
  let last = 1;
  for (let i = 0; i < c.length; i += 1) {
    const known = 1 + a[i]!.reduce((s, w, j) => s + w * slopes[j]!, 0);
    last = i === 0 && c[0] === 0 ? 1 : known / (1 - gamma * z);
    slopes.push(z * last);
  }
  return last;
}

describe('the method of a run in time', () => {
  it('meets every condition of order four, and the one below those of order three only', () => {
    const { full, c, own, lower } = tableOf(FOURTH_ORDER);
    full.forEach((row, i) => expect(row.reduce((s, v) => s + v, 0)).toBeCloseTo(c[i]!, 13));
    for (const order of [1, 2, 3, 4] as const)
      expect(worst(conditions(full, c, own)[order])).toBeLessThan(1e-13);
    for (const order of [1, 2, 3] as const)
      expect(worst(conditions(full, c, lower)[order])).toBeLessThan(1e-13);
    expect(worst(conditions(full, c, lower)[4])).toBeGreaterThan(1e-4);
  });

  it('begins after a jump by a method of order one', () => {
    const { full, c, own } = tableOf(FROM_A_JUMP);
    expect(worst(conditions(full, c, own)[1])).toBeLessThan(1e-15);
    expect(worst(conditions(full, c, own)[2])).toBeGreaterThan(0.1);
  });

  it('forgets what is infinitely fast, and never lets anything that decays grow', () => {
    for (const method of [FOURTH_ORDER, FROM_A_JUMP]) {
      expect(Math.abs(growth(method, -1e9))).toBeLessThan(1e-7);
      for (let z = 1e-3; z < 1e6; z *= 1.3) expect(Math.abs(growth(method, -z))).toBeLessThanOrEqual(1);
    }
  });
});
