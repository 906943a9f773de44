import { rootBetween } from '../../base/numeric/index.ts';

/** A reading at a value of a part; null where there is none. */
type Read = (value: number) => number | null;

export interface Narrowing {
  readonly target: number;
  /** Relative width to which a crossing is narrowed. */
  readonly resolution: number;
  readonly mayGoOn: () => boolean;
}

/** How the crossings of a goal are looked for. */
export interface CrossingOptions extends Narrowing {
  /** Values at which the reading is taken first, ascending. */
  readonly places: readonly number[];
}

const MOST_STEPS = 40;

/**
 * Values of a part at which a reading crosses its target: places are read one after another, and every sign change of the
 * miss is narrowed by false position on the value's logarithm.
 *
 * @param read null where there is no reading: then nothing is known between it and its neighbours
 */
export function crossingsOf(read: Read, options: CrossingOptions): number[] {
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

/** A value with its reading. */
export interface Taken {
  readonly value: number;
  readonly reading: number;
}

export interface WalkOptions extends Narrowing {
  /** Factor away from the first value beyond which the walk ends. */
  readonly farthest: number;
  /** Least factor of a step. */
  readonly leastStride: number;
}

/** A step of a walk is at most this factor, or its least one. */
const LARGEST_STRIDE = 3;
/** A step that leads to where there is no reading is shortened to its square root at most this often. */
const MOST_RETREATS = 1;
const MOST_STRIDES = 12;

/**
 * Where a walk along the slope brings a reading that is dear: from two values with their readings, by secants on the
 * value's logarithm until the target lies between two readings, then narrowed. Where the target is not reached, because
 * the reading turns back, ends or is too far away, the value that came nearest.
 *
 * @returns undefined where nothing came nearer than the first value
 */
export function walkTo(read: Read, first: Taken, second: Taken, options: WalkOptions): number | undefined {
  const missOf = ({ reading }: Taken) => reading - options.target;
  const isNearer = (a: Taken, b: Taken) => Math.abs(missOf(a)) < Math.abs(missOf(b));
  let [before, here] = isNearer(first, second) ? [second, first] : [first, second];
  let nearest = here;
  let [low, high] = [Math.min(first.value, second.value), Math.max(first.value, second.value)];
  let retreats = 0;
  for (let i = 0; i < MOST_STRIDES && options.mayGoOn(); i += 1) {
    if (missOf(before) * missOf(here) <= 0) {
      const [lower, upper] = before.value < here.value ? [before, here] : [here, before];
      return narrow(read, lower.value, missOf(lower), upper.value, missOf(upper), options);
    }
    const slope = (here.reading - before.reading) / Math.log(here.value / before.value);
    const next = here.value * strideTowards(-missOf(here) / slope, options.leastStride, retreats);
    const isSeen = next >= low && next <= high;
    if (isSeen || !(Math.abs(Math.log(next / first.value)) <= Math.log(options.farthest))) break;
    const reading = read(next);
    if (reading === null) {
      retreats += 1;
      if (retreats > MOST_RETREATS) break;
      continue;
    }
    [before, here] = [here, { value: next, reading }];
    [low, high] = [Math.min(low, next), Math.max(high, next)];
    if (isNearer(here, nearest)) nearest = here;
  }
  return isNearer(nearest, first) ? nearest.value : undefined;
}

/** The factor of a step towards where the secant points, on the logarithm; NaN where it points nowhere. */
function strideTowards(wanted: number, least: number, retreats: number): number {
  const size = Math.max(Math.log(least), Math.min(Math.log(LARGEST_STRIDE), OVERSHOOT * Math.abs(wanted)));
  return Math.exp((Math.sign(wanted) * size) / 2 ** retreats);
}
/** A step goes a little beyond where the secant points, so that the target comes to lie between two readings. */
const OVERSHOOT = 1.1;

function narrow(
  read: Read,
  low: number,
  atLow: number,
  high: number,
  atHigh: number,
  { target, resolution, mayGoOn }: Narrowing,
): number {
  const f = (x: number) => {
    const reading = mayGoOn() ? read(Math.exp(x)) : null;
    return reading === null ? null : reading - target;
  };
  const ends = { low: Math.log(low), atLow, high: Math.log(high), atHigh };
  return Math.exp(
    rootBetween(f, { ...ends, width: resolution, zero: resolution * Math.abs(target), steps: MOST_STEPS }),
  );
}
