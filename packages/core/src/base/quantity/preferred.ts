import { ZembleError } from '../errors/index.ts';

/**
 * Preferred values of IEC 60063. E3 to E24 are the standard's irregular two-digit table; E48, E96 and E192 are
 * rounded powers of ten to three digits, with the standard's one exception (9.20 in E192, where rounding gives 9.19).
 */
const E24 = [
  1.0, 1.1, 1.2, 1.3, 1.5, 1.6, 1.8, 2.0, 2.2, 2.4, 2.7, 3.0, 3.3, 3.6, 3.9, 4.3, 4.7, 5.1, 5.6, 6.2, 6.8,
  7.5, 8.2, 9.1,
];
const every = (step: number) => E24.filter((_, i) => i % step === 0);
const computed = (count: number) =>
  Array.from({ length: count }, (_, i) => {
    const value = Number((10 ** (i / count)).toFixed(2));
    return count === 192 && i === 185 ? 9.2 : value;
  });

export const E_SERIES = {
  E3: every(8),
  E6: every(4),
  E12: every(2),
  E24,
  E48: computed(48),
  E96: computed(96),
  E192: computed(192),
} as const satisfies Record<string, readonly number[]>;

export type ESeries = keyof typeof E_SERIES;
export const E_SERIES_NAMES = Object.keys(E_SERIES) as ESeries[];

/** The series of that name, in any case. Throws `preferred/series` for others. */
export function seriesNamed(name: string): ESeries {
  const found = E_SERIES_NAMES.find((s) => s === name.trim().toUpperCase());
  if (!found) throw new ZembleError('preferred/series', { text: name });
  return found;
}

const at = (mantissa: number, exponent: number) => Number(`${mantissa}e${exponent}`);

/** Decades beyond which no number is told from zero or infinity. */
const SMALLEST_DECADE = -300;
const LARGEST_DECADE = 307;

/** All preferred values from `low` to `high` inclusive (both above zero), ascending. */
export function preferredBetween(low: number, high: number, series: ESeries): number[] {
  const values: number[] = [];
  const slack = 1e-9;
  const [first, last] = [Math.floor(Math.log10(low)), Math.ceil(Math.log10(high))];
  for (let e = Math.max(first, SMALLEST_DECADE); e <= Math.min(last, LARGEST_DECADE); e += 1) {
    for (const m of E_SERIES[series]) {
      const value = at(m, e);
      if (value >= low * (1 - slack) && value <= high * (1 + slack)) values.push(value);
    }
  }
  return values;
}

/** Is the value a member of the series in some decade? */
export function isPreferred(value: number, series: ESeries): boolean {
  return value > 0 && Math.abs(nearestPreferred(value, series) / value - 1) < 1e-9;
}

/**
 * The preferred value nearest to `target` (above zero) by relative error. Of two equally near the lower wins.
 */
export function nearestPreferred(target: number, series: ESeries): number {
  let best = Number.NaN;
  for (const value of preferredBetween(target / 10, target * 10, series)) {
    if (!(Math.abs(value - target) >= Math.abs(best - target))) best = value;
  }
  return best;
}

/** The next preferred value above (`steps` > 0) or below (`steps` < 0) `value`, as a dial turned click by click. */
export function stepPreferred(value: number, steps: number, series: ESeries): number {
  const values = preferredBetween(
    value / 10 ** (2 + Math.abs(steps)),
    value * 10 ** (2 + Math.abs(steps)),
    series,
  );
  const slack = 1e-9 * value;
  const above = values.filter((v) => v > value + slack);
  const below = values.filter((v) => v < value - slack).reverse();
  const chosen = steps > 0 ? above[steps - 1] : steps < 0 ? below[-steps - 1] : value;
  return chosen ?? value;
}

export type PairKind = 'resistor' | 'capacitor' | 'inductor';

/** Value of two parts wired in series or in parallel; capacitors add in parallel, the others in series. */
export function combine(a: number, b: number, wiring: 'series' | 'parallel', kind: PairKind): number {
  const adds = (wiring === 'series') !== (kind === 'capacitor');
  return adds ? a + b : (a * b) / (a + b);
}

export interface Pair {
  /** The two values, larger first. */
  readonly values: readonly [number, number];
  readonly value: number;
  /** (value - target) / target. */
  readonly error: number;
}

/**
 * The best two preferred values wired in series or in parallel for `target` (above zero): every decade from a
 * hundredth to a hundred times the target is searched, the least relative error wins; of equals the pair with the
 * smaller ratio.
 */
export function bestPair(
  target: number,
  series: ESeries,
  wiring: 'series' | 'parallel',
  kind: PairKind,
): Pair {
  const adds = (wiring === 'series') !== (kind === 'capacitor');
  const values = preferredBetween(target / 100, target * 100, series);
  let best: Pair | undefined;
  for (const a of values) {
    const wanted = adds ? target - a : a > target ? (a * target) / (a - target) : Number.POSITIVE_INFINITY;
    if (wanted > a * (1 + 1e-9) && best) continue;
    for (const b of around(values, wanted)) {
      if (b > a) continue;
      const value = combine(a, b, wiring, kind);
      const error = (value - target) / target;
      const gain = best ? Math.abs(best.error) - Math.abs(error) : 1;
      const narrower = best ? a / b < best.values[0] / best.values[1] : true;
      if (gain > 1e-12 || (gain > -1e-12 && narrower)) best = { values: [a, b], value, error };
    }
  }
  return best!;
}

/** The values just below and just above `wanted` in an ascending list. */
function around(ascending: readonly number[], wanted: number): number[] {
  let low = 0;
  let high = ascending.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (ascending[middle]! < wanted) low = middle + 1;
    else high = middle;
  }
  return ascending.slice(Math.max(0, low - 1), low + 1);
}

export interface PreferredAnswer {
  readonly target: number;
  readonly series: ESeries;
  readonly nearest: number;
  readonly nearestError: number;
  readonly seriesPair: Pair;
  readonly parallelPair: Pair;
}

/** Nearest single value and best pairs for a target above zero. */
export function preferred(target: number, series: ESeries, kind: PairKind = 'resistor'): PreferredAnswer {
  const nearest = nearestPreferred(target, series);
  return {
    target,
    series,
    nearest,
    nearestError: (nearest - target) / target,
    seriesPair: bestPair(target, series, 'series', kind),
    parallelPair: bestPair(target, series, 'parallel', kind),
  };
}

/** Values that anybody makes lie between these, in SI units. */
const MADE = { least: 1e-13, most: 1e9 } as const;

/** Whether a value lies where parts of some kind are made at all. */
export const isMade = (value: number): boolean => value >= MADE.least && value <= MADE.most;
