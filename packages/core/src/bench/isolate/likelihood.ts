import { sigmaOf, type Prediction } from './prediction.ts';

/** Chance that a reading has nothing to do with the circuit: a slipped probe, a misread digit, the wrong net (common practice). */
export const STRAY = 0.02;

/** How well readings agree with what is predicted of them. */
export interface Agreement {
  /** Logarithm of their density, what is the same for all hypotheses left out. */
  readonly log: number;
  /** Chance of each reading to be astray, given the hypothesis; in the order of the readings. */
  readonly astray: readonly number[];
  /** The logarithm of the density of the others, for each reading that is left out, all of them as they should be. */
  readonly without: readonly number[];
  /** The square of the deviations, in sigmas; infinite where one is overload and the other is not, or something is not known. */
  readonly square: number;
}

/**
 * The density of readings under predictions whose spreads they share: bell-shaped with the covariance of all moves and heavy tails, one reading
 * or none of them astray. A reading that is astray may be anything in its span.
 *
 * @param predicted one a reading; null where it is not known
 * @param measured null for overload
 * @param spans where a stray reading may lie, the width of it, above zero
 * @param sure readings that were taken twice, and alike: both astray is all that is left
 */
export function agreement(
  predicted: readonly (Prediction | null)[],
  measured: readonly (number | null)[],
  spans: readonly number[],
  sure: readonly boolean[] = [],
): Agreement {
  const strayOf = (i: number) => (sure[i] ? STRAY ** 2 : STRAY);
  let log = 0;
  const astray = measured.map(() => 0);
  /** What each reading that is no number, or has none predicted, adds. */
  const own = measured.map(() => 0);
  let isComparable = true;
  const add = (i: number, term: number) => {
    own[i] = term;
    log += term;
  };
  const numbers: number[] = [];
  measured.forEach((value, i) => {
    const prediction = predicted[i];
    if (!prediction) {
      // Nothing is known of it: it may be anything.
      isComparable = false;
      add(i, value === null ? 0 : -Math.log(spans[i]!));
      return;
    }
    if (value !== null && prediction.value !== null) {
      numbers.push(i);
      return;
    }
    const isSame = value === null && prediction.value === null;
    const chance = Math.log(isSame ? 1 - strayOf(i) : strayOf(i));
    add(i, chance - (value === null ? 0 : Math.log(spans[i]!)));
    if (isSame) return;
    isComparable = false;
    astray[i] = 1;
  });
  if (numbers.length === 0) {
    const without = own.map((term) => log - term);
    return { log, astray, without, square: isComparable ? 0 : Number.POSITIVE_INFINITY };
  }
  const rest = numbers.map((i) => measured[i]! - predicted[i]!.value!);
  const inverse = precisionOf(numbers.map((i) => predicted[i]!));
  const weighed = times(inverse.precision, rest);
  const n = numbers.length;
  const square = weighed.reduce((sum, v, i) => sum + v * rest[i]!, 0);
  const whole = logStudent(square, inverse.logDeterminant, n);
  // With one reading left out, by the precision of the others.
  const others = numbers.map((_, i) => {
    const precision = inverse.precision[i * n + i]!;
    const rest = square - weighed[i]! ** 2 / precision;
    return logStudent(rest, inverse.logDeterminant + Math.log(precision), n - 1);
  });
  const logs = numbers.map(
    (at, i) => others[i]! + Math.log(strayOf(at) / (1 - strayOf(at))) - Math.log(spans[at]!),
  );
  const best = Math.max(whole, ...logs);
  const total = Math.exp(whole - best) + logs.reduce((sum, l) => sum + Math.exp(l - best), 0);
  numbers.forEach((at, i) => (astray[at] = Math.exp(logs[i]! - best) / total));
  const right = numbers.reduce((sum, at) => sum + Math.log(1 - strayOf(at)), 0);
  const without = own.map((term) => log + right - term + whole);
  numbers.forEach((at, i) => (without[at] = log + right - Math.log(1 - strayOf(at)) + others[i]!));
  return {
    log: log + right + best + Math.log(total),
    astray,
    without,
    square: isComparable ? square : Number.POSITIVE_INFINITY,
  };
}

/**
 * Degrees of freedom of the deviations: circuits bend, types lie, and what is far out is likelier than a normal
 * distribution has it (calibrated against simulated benches).
 */
const FREEDOM = 5;

/**
 * Logarithm of the density of Student's distribution in several dimensions, of a square of deviations (Kotz and Nadarajah
 * 2004).
 */
const logStudent = (square: number, logDeterminant: number, n: number): number =>
  logScale(n) - (logDeterminant + (FREEDOM + n) * Math.log1p(square / FREEDOM)) / 2;

const logScales: number[] = [];
/** What the density has of its dimensions alone. */
const logScale = (n: number): number =>
  (logScales[n] ??=
    logGamma((FREEDOM + n) / 2) - logGamma(FREEDOM / 2) - (n * Math.log(FREEDOM * Math.PI)) / 2);

/**
 * The density of one reading by itself under what is predicted of it, as `agreement` has it; null, for overload, has a chance and no
 * density.
 */
export function densityOf(prediction: Prediction | null, value: number | null, span: number): number {
  if (!prediction) return value === null ? 1 : 1 / span;
  if (value === null || prediction.value === null) {
    const isSame = value === null && prediction.value === null;
    return (isSame ? 1 - STRAY : STRAY) / (value === null ? 1 : span);
  }
  const variance = sigmaOf(prediction) ** 2;
  const square = (value - prediction.value) ** 2 / variance;
  return (1 - STRAY) * Math.exp(logStudent(square, Math.log(variance), 1)) + STRAY / span;
}

/** Logarithm of the gamma function above zero, after Stirling with the argument moved up (Abramowitz and Stegun 6.1.41). */
function logGamma(x: number): number {
  let [at, log] = [x, 0];
  for (; at < 8; at += 1) log -= Math.log(at);
  return (
    log + (at - 0.5) * Math.log(at) - at + 0.5 * Math.log(2 * Math.PI) + 1 / (12 * at) - 1 / (360 * at ** 3)
  );
}

/** How far other predictions lie from one set of them, in sigmas of that. */
export class Separation {
  private readonly from: readonly (Prediction | null)[];
  private readonly at: readonly number[];
  private readonly numbers: readonly number[];
  private readonly precision: Float64Array;

  /** @param at the positions that count */
  constructor(from: readonly (Prediction | null)[], at: readonly number[]) {
    this.from = at.map((i) => from[i] ?? null);
    this.numbers = this.from.flatMap((p, i) => (p !== null && p.value !== null ? [i] : []));
    this.precision = precisionOf(this.numbers.map((i) => this.from[i]!)).precision;
    this.at = at;
  }

  /** The square of the distance; infinite where one shows overload and the other does not, and unknown counts as near. */
  to(other: readonly (Prediction | null)[]): number {
    for (let i = 0; i < this.at.length; i += 1) {
      const [a, b] = [this.from[i], other[this.at[i]!]];
      if (a && b && (a.value === null) !== (b.value === null)) return Number.POSITIVE_INFINITY;
    }
    const rest = this.numbers.map((i) => {
      const b = other[this.at[i]!];
      return b ? b.value! - this.from[i]!.value! : 0;
    });
    return times(this.precision, rest).reduce((sum, v, i) => sum + v * rest[i]!, 0);
  }
}

/** Inverse of the covariance of predictions, row by row, and the logarithm of its determinant. */
function precisionOf(predictions: readonly Prediction[]): {
  readonly precision: Float64Array;
  readonly logDeterminant: number;
} {
  const n = predictions.length;
  const covariance = new Float64Array(n * n);
  for (let i = 0; i < n; i += 1) {
    const { moves, own } = predictions[i]!;
    for (let j = 0; j <= i; j += 1) {
      const other = predictions[j]!.moves;
      const shared = Math.min(moves.length, other.length);
      let sum = i === j ? own * own : 0;
      for (let k = 0; k < shared; k += 1) sum += moves[k]! * other[k]!;
      covariance[i * n + j] = sum;
      covariance[j * n + i] = sum;
    }
  }
  return { logDeterminant: invert(covariance, n), precision: covariance };
}

/**
 * Kernel: inverts a positive definite matrix in place by Gauss and Jordan, without exchange: every prediction has something
 * of its own, so that the pivots stay above it. Answers the logarithm of the determinant.
 */
function invert(a: Float64Array, n: number): number {
  let logDeterminant = 0;
  for (let k = 0; k < n; k += 1) {
    const row = k * n;
    const pivot = a[row + k]!;
    logDeterminant += Math.log(pivot);
    a[row + k] = 1;
    for (let c = 0; c < n; c += 1) a[row + c] = a[row + c]! / pivot;
    for (let r = 0; r < n; r += 1) {
      if (r === k) continue;
      const at = r * n;
      const factor = a[at + k]!;
      if (factor === 0) continue;
      a[at + k] = 0;
      for (let c = 0; c < n; c += 1) a[at + c] = a[at + c]! - factor * a[row + c]!;
    }
  }
  return logDeterminant;
}

/** A matrix, row by row, times a vector. */
function times(a: Float64Array, x: readonly number[]): number[] {
  const n = x.length;
  return x.map((_, i) => {
    let sum = 0;
    for (let j = 0; j < n; j += 1) sum += a[i * n + j]! * x[j]!;
    return sum;
  });
}
