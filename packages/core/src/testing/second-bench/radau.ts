import { gauss } from './nodal.ts';

/** A system C dx/dt = F(x) with a constant C, by rows. */
export interface Dynamics {
  readonly c: readonly (readonly number[])[];
  /** F and its slopes, by row and unknown. */
  readonly rates: (x: readonly number[]) => {
    readonly f: readonly number[];
    readonly slopes: readonly (readonly number[])[];
  };
}

const ROOT = Math.sqrt(6);
/** Radau IIA of order five (Hairer and Wanner, Solving Ordinary Differential Equations II, table IV.5.6). */
const A = [
  [(88 - 7 * ROOT) / 360, (296 - 169 * ROOT) / 1800, (-2 + 3 * ROOT) / 225],
  [(296 + 169 * ROOT) / 1800, (88 + 7 * ROOT) / 360, (-2 - 3 * ROOT) / 225],
  [(16 - ROOT) / 36, (16 + ROOT) / 36, 1 / 9],
] as const;
const STAGES = 3;
const MOST_ITERATIONS = 20;
/** A Newton step is no longer than this, V: exponentials are not stepped over. */
const LONGEST_NEWTON = 0.3;

/** One step, or where its equations are not solved eight of an eighth of it. */
function advanced({ c, rates }: Dynamics, x: readonly number[], stepS: number, depth = 0): readonly number[] {
  const n = x.length;
  const z = Array.from({ length: STAGES }, () => [...x]);
  let moved = Infinity;
  for (let look = 0; look < MOST_ITERATIONS && moved > CLOSED; look += 1) {
    const at = z.map((stage) => rates(stage));
    const matrix = Array.from({ length: STAGES * n }, () => new Array<number>(STAGES * n).fill(0));
    const residual = new Array<number>(STAGES * n).fill(0);
    for (let i = 0; i < STAGES; i += 1)
      for (let r = 0; r < n; r += 1) {
        const row = matrix[i * n + r]!;
        let sum = 0;
        for (let k = 0; k < n; k += 1) {
          sum += c[r]![k]! * (z[i]![k]! - x[k]!);
          row[i * n + k]! += c[r]![k]!;
        }
        for (let j = 0; j < STAGES; j += 1) {
          const weight = stepS * A[i]![j]!;
          sum -= weight * at[j]!.f[r]!;
          for (let k = 0; k < n; k += 1) row[j * n + k]! -= weight * at[j]!.slopes[r]![k]!;
        }
        residual[i * n + r] = -sum;
      }
    const step = gauss(matrix, residual);
    moved = Math.max(...step.map(Math.abs));
    const share = Math.min(1, LONGEST_NEWTON / moved);
    z.forEach((stage, i) => stage.forEach((_, k) => (stage[k]! += share * step[i * n + k]!)));
  }
  const isSolved =
    moved <= CLOSED && Math.max(...z.flat().map((v, i) => Math.abs(v - x[i % n]!))) < LONGEST_MOVE;
  if (isSolved || depth === DEEPEST) return z[STAGES - 1]!;
  let now = x;
  for (let i = 0; i < PARTS; i += 1) now = advanced({ c, rates }, now, stepS / PARTS, depth + 1);
  return now;
}
/** A step that moves more than this, V, is taken in parts: what flips within it flips at its time. */
const LONGEST_MOVE = 0.5;
const CLOSED = 1e-9;
const PARTS = 8;
const DEEPEST = 6;

/**
 * The state after each of equal steps: a second way to a run in time, which shares nothing with the first. Steps that are small
 * against everything that is timed; one in which much moves is taken in parts.
 */
export function* radau(
  dynamics: Dynamics,
  start: readonly number[],
  stepS: number,
): Generator<readonly number[]> {
  for (let x = start; ;) {
    x = advanced(dynamics, x, stepS);
    yield x;
  }
}
