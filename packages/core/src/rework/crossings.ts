/** How the crossings of a goal are looked for. */
export interface CrossingOptions {
  /** Values at which the reading is taken first, ascending. */
  readonly places: readonly number[];
  readonly target: number;
  /** Relative width to which a crossing is narrowed. */
  readonly resolution: number;
  readonly mayGoOn: () => boolean;
}

const MOST_STEPS = 40;

/**
 * Values of a part at which a reading crosses its target: places are read one after another, and every sign change of the
 * miss is narrowed by false position on the value's logarithm (Illinois rule, Dowell and Jarratt 1971).
 *
 * @param read null where there is no reading: then nothing is known between it and its neighbours
 */
export function crossingsOf(read: (value: number) => number | null, options: CrossingOptions): number[] {
  const { places, target, mayGoOn } = options;
  const found: number[] = [];
  let before: { value: number; miss: number } | null = null;
  for (const value of places) {
    if (!mayGoOn()) break;
    const reading = read(value);
    const miss = reading === null ? null : reading - target;
    if (miss !== null && before !== null && before.miss * miss <= 0)
      found.push(narrow(read, before.value, before.miss, value, miss, options));
    before = miss === null ? null : { value, miss };
  }
  return found;
}

function narrow(
  read: (value: number) => number | null,
  low: number,
  atLow: number,
  high: number,
  atHigh: number,
  { target, resolution, mayGoOn }: CrossingOptions,
): number {
  let [a, fa, b, fb] = [Math.log(low), atLow, Math.log(high), atHigh];
  for (let i = 0; i < MOST_STEPS && b - a > resolution && mayGoOn(); i += 1) {
    if (fa === 0) return Math.exp(a);
    if (fb === 0) return Math.exp(b);
    // A span that false position hardly narrows is halved now and then.
    const x = i % 3 === 2 ? (a + b) / 2 : b - (fb * (b - a)) / (fb - fa);
    const reading = read(Math.exp(x));
    if (reading === null) return Math.exp((a + b) / 2);
    const miss = reading - target;
    if (Math.abs(miss) <= resolution * Math.abs(target)) return Math.exp(x);
    if (miss * atLow > 0) {
      [a, fa] = [x, miss];
      fb /= 2;
    } else {
      [b, fb] = [x, miss];
      fa /= 2;
    }
  }
  return Math.exp((a + b) / 2);
}
