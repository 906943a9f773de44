/** Points of a waveform, times ascending. */
export interface Trace {
  readonly timeS: readonly number[];
  readonly value: readonly number[];
}

/**
 * Times at which a trace crosses a level, rising or falling: on the cubic through the two points about it with the slopes that
 * their neighbours say.
 */
export function crossingsOf(trace: Trace, level: number, isRising: boolean): number[] {
  const { timeS, value } = trace;
  const found: number[] = [];
  for (let i = 1; i < value.length; i += 1) {
    const [a, b] = [value[i - 1]! - level, value[i]! - level];
    const crosses = isRising ? a < 0 && b >= 0 : a > 0 && b <= 0;
    if (crosses) found.push(timeS[i - 1]! + (timeS[i]! - timeS[i - 1]!) * rootWithin(trace, i, level));
  }
  return found;
}

/** Slope of the parabola through a point and its neighbours, a second; the last and first points have one neighbour. */
function slopeAt({ timeS, value }: Trace, i: number): number {
  const slope = (k: number) => (value[k]! - value[k - 1]!) / (timeS[k]! - timeS[k - 1]!);
  if (i === 0) return slope(1);
  if (i === value.length - 1) return slope(i);
  const [before, after] = [timeS[i]! - timeS[i - 1]!, timeS[i + 1]! - timeS[i]!];
  return (after * slope(i) + before * slope(i + 1)) / (before + after);
}

const BISECTIONS = 40;
/** Where between points i - 1 and i the level is crossed, 0 to 1; they lie on either side of it. */
function rootWithin(trace: Trace, i: number, level: number): number {
  const { timeS, value } = trace;
  const h = timeS[i]! - timeS[i - 1]!;
  const [a, b] = [value[i - 1]! - level, value[i]! - level];
  const [m, n] = [slopeAt(trace, i - 1) * h, slopeAt(trace, i) * h];
  const straight = a / (a - b);
  // Beside a jump the neighbours say nothing of the slope.
  if (!Number.isFinite(m + n) || Math.max(Math.abs(m), Math.abs(n)) > 3 * Math.abs(b - a)) return straight;
  const at = (u: number) => a + u * (m + u * (3 * (b - a) - 2 * m - n + u * (m + n - 2 * (b - a))));
  let [low, high] = [0, 1];
  for (let k = 0; k < BISECTIONS; k += 1) {
    const middle = (low + high) / 2;
    if (Math.sign(at(middle)) === Math.sign(a)) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/** The least and the largest of some values, from an index on. */
export function extremesOf(values: readonly number[], from = 0): readonly [low: number, high: number] {
  let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (let i = from; i < values.length; i += 1) {
    low = Math.min(low, values[i]!);
    high = Math.max(high, values[i]!);
  }
  return [low, high];
}

/** The largest distance from 0: of the parabola through the point that is farthest and its neighbours, where it turns there. */
export function peakOf({ timeS, value }: Trace): number {
  let at = 0;
  for (let i = 1; i < value.length; i += 1) if (Math.abs(value[i]!) > Math.abs(value[at]!)) at = i;
  const top = Math.abs(value[at] ?? 0);
  if (at === 0 || at >= value.length - 1) return top;
  const [before, after] = [timeS[at]! - timeS[at - 1]!, timeS[at + 1]! - timeS[at]!];
  const rise = (value[at]! - value[at - 1]!) / before;
  const fall = (value[at + 1]! - value[at]!) / after;
  // Beside a jump there is no parabola.
  const steepest = Math.max(Math.abs(rise * before), Math.abs(fall * after));
  if (steepest > NEAR_THE_TOP * top) return top;
  const bend = (fall - rise) / (before + after);
  const slope = (after * rise + before * fall) / (before + after);
  if (bend === 0) return top;
  const turn = -slope / (2 * bend);
  const isWithin = turn > -before && turn < after;
  return isWithin ? Math.abs(value[at]! + turn * (slope + turn * bend)) : top;
}
const NEAR_THE_TOP = 0.1;

export interface Oscillation {
  readonly periodS: number;
  readonly frequencyHz: number;
  /** Peak to peak. */
  readonly swing: number;
  /** Part of the period above the middle. */
  readonly duty: number;
}

/** Cycles at the end of a trace that must agree, and how well, before it counts as an oscillation. */
const CYCLES = 4;
const AGREEMENT = 0.01;
/** Smallest swing that counts, V. */
const LEAST_SWING = 1e-3;

/** The steady oscillation at the end of a trace; null when it does not repeat itself there. */
export function oscillationOf(trace: Trace): Oscillation | null {
  const { timeS, value } = trace;
  const begin = timeS.findIndex((t) => t >= timeS.at(-1)! / 2);
  const [low, high] = extremesOf(value, begin);
  if (!(high - low > LEAST_SWING)) return null;
  const level = (low + high) / 2;
  const rising = crossingsOf(trace, level, true);
  if (rising.length < CYCLES + 1) return null;
  const last = rising.slice(-CYCLES - 1);
  const periods = last.slice(1).map((t, i) => t - last[i]!);
  const mean = periods.reduce((a, b) => a + b, 0) / CYCLES;
  if (periods.some((p) => Math.abs(p / mean - 1) > AGREEMENT)) return null;
  const swings = last.slice(1).map((t, i) => swingBetween(trace, last[i]!, t));
  if (swings.some((s) => Math.abs(s / swings.at(-1)! - 1) > 2 * AGREEMENT)) return null;
  const fall = crossingsOf(trace, level, false).find((t) => t > last[CYCLES - 1]!) ?? last[CYCLES]!;
  return {
    periodS: mean,
    frequencyHz: 1 / mean,
    swing: swings.at(-1)!,
    duty: (fall - last[CYCLES - 1]!) / periods[CYCLES - 1]!,
  };
}

function swingBetween({ timeS, value }: Trace, from: number, to: number): number {
  let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (let i = 0; i < timeS.length; i += 1) {
    if (timeS[i]! < from || timeS[i]! > to) continue;
    low = Math.min(low, value[i]!);
    high = Math.max(high, value[i]!);
  }
  return high - low;
}
