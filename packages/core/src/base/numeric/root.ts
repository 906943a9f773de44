/** A function with its ends: where it is above zero at one and not at the other, and how near to look. */
export interface Bracket {
  readonly low: number;
  readonly atLow: number;
  readonly high: number;
  readonly atHigh: number;
  /** Width below which the place is known. */
  readonly width: number;
  /** The largest value of the function that counts as zero; 0 unless given. */
  readonly zero?: number;
  readonly steps?: number;
}

const MOST_STEPS = 80;

/**
 * Where a function goes through zero between two ends: false position with the end that stands halved (the Illinois rule,
 * Dowell and Jarratt 1971), and every third step a bisection. A place without a value (null) ends it halfway.
 */
export function rootBetween(f: (x: number) => number | null, bracket: Bracket): number {
  const { width, zero = 0, steps = MOST_STEPS } = bracket;
  let [a, fa, b, fb] = [bracket.low, bracket.atLow, bracket.high, bracket.atHigh];
  for (let i = 0; i < steps && b - a > width; i += 1) {
    if (fa === 0) return a;
    if (fb === 0) return b;
    const x = i % 3 === 2 ? (a + b) / 2 : b - (fb * (b - a)) / (fb - fa);
    const value = f(x);
    if (value === null) break;
    if (Math.abs(value) <= zero) return x;
    if (value * bracket.atLow > 0) {
      [a, fa] = [x, value];
      fb /= 2;
    } else {
      [b, fb] = [x, value];
      fa /= 2;
    }
  }
  return (a + b) / 2;
}
