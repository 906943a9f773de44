/** Points of a waveform, times ascending. */
export interface Trace {
  readonly timeS: readonly number[];
  readonly value: readonly number[];
}

/** Times at which a trace crosses a level, rising or falling, by linear interpolation. */
export function crossingsOf({ timeS, value }: Trace, level: number, isRising: boolean): number[] {
  const found: number[] = [];
  for (let i = 1; i < value.length; i += 1) {
    const [a, b] = [value[i - 1]! - level, value[i]! - level];
    const crosses = isRising ? a < 0 && b >= 0 : a > 0 && b <= 0;
    if (crosses) found.push(timeS[i - 1]! + ((timeS[i]! - timeS[i - 1]!) * a) / (a - b));
  }
  return found;
}

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
  const late = value.slice(begin);
  const [low, high] = [Math.min(...late), Math.max(...late)];
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
