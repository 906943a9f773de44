import { SINGULAR_RATIO } from './elimination-plan.ts';

/** One over the largest entry of each row; kept from call to call. */
let weights = new Float64Array(0);

/** Rows are weighed against their own largest entry: a limit's 1e12 in one must not decide, or its rounding is everywhere. */
function weigh(a: Float64Array, n: number): void {
  if (weights.length < n) weights = new Float64Array(2 * n);
  for (let r = 0; r < n; r += 1) {
    let largest = 0;
    const end = (r + 1) * n;
    for (let i = r * n; i < end; i += 1) {
      const size = Math.abs(a[i]!);
      if (size > largest) largest = size;
    }
    weights[r] = largest > 0 ? 1 / largest : 0;
  }
}

/**
 * Kernel: solves a small dense system by Gaussian elimination with row exchange by scaled pivots (Golub and Van Loan, Matrix
 * Computations, 3.4). `a` (n rows of n) receives the factors and
 * `exchanged` the row that each row changed places with, for `solveDenseAgain`; `b` receives the answer.
 *
 * @returns -1, or the column in which no pivot is left
 */
export function solveDense(a: Float64Array, b: Float64Array, n: number, exchanged: Int32Array): number {
  weigh(a, n);
  for (let k = 0; k < n; k += 1) {
    let top = k;
    let largest = Math.abs(a[k * n + k]!) * weights[k]!;
    for (let r = k + 1; r < n; r += 1) {
      const size = Math.abs(a[r * n + k]!) * weights[r]!;
      if (size > largest) {
        largest = size;
        top = r;
      }
    }
    const row = k * n;
    if (!(Math.abs(a[top * n + k]!) > TINY)) return k;
    exchanged[k] = top;
    if (top !== k) {
      const other = top * n;
      for (let c = 0; c < n; c += 1) {
        const held = a[row + c]!;
        a[row + c] = a[other + c]!;
        a[other + c] = held;
      }
      const held = b[k]!;
      b[k] = b[top]!;
      b[top] = held;
      weights[top] = weights[k]!;
    }
    const inverse = 1 / a[row + k]!;
    const known = b[k]!;
    for (let r = k + 1; r < n; r += 1) {
      const below = r * n;
      const factor = a[below + k]! * inverse;
      a[below + k] = factor;
      if (factor === 0) continue;
      for (let c = k + 1; c < n; c += 1) a[below + c] = a[below + c]! - factor * a[row + c]!;
      b[r] = b[r]! - factor * known;
    }
  }
  substituteBack(a, b, n);
  return -1;
}

function substituteBack(a: Float64Array, b: Float64Array, n: number): void {
  for (let k = n - 1; k >= 0; k -= 1) {
    const row = k * n;
    let sum = b[k]!;
    for (let c = k + 1; c < n; c += 1) sum -= a[row + c]! * b[c]!;
    b[k] = sum / a[row + k]!;
  }
}

/** Kernel: solves for another right-hand side, in place, with the factors of `solveDense`. */
export function solveDenseAgain(a: Float64Array, b: Float64Array, n: number, exchanged: Int32Array): void {
  for (let k = 0; k < n; k += 1) {
    const top = exchanged[k]!;
    const known = b[top]!;
    b[top] = b[k]!;
    b[k] = known;
  }
  for (let k = 0; k < n; k += 1) {
    const known = b[k]!;
    if (known === 0) continue;
    for (let r = k + 1; r < n; r += 1) b[r] = b[r]! - a[r * n + k]! * known;
  }
  substituteBack(a, b, n);
}

/** Smaller than any conductance a circuit has, S. */
const TINY = SINGULAR_RATIO * 1e-15;
