import { KINDS, valueOnLayer, type Circuit, type Part } from '../circuit/index.ts';
import type { BenchModel } from './bench-model.ts';

/** A repeatable source of random numbers, 0 up to 1. */
export type Random = () => number;

/** The usual seeded generator (mulberry32, public domain): the same seed gives the same run everywhere. */
export function seededRandom(seed: number): Random {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** A part whose value spreads, and by how much. */
export interface SpreadPart {
  readonly ref: string;
  readonly value: number;
  /** Fraction either way. */
  readonly tolerance: number;
  /** Parts of one group deviate together. */
  readonly group: string;
}

/** Parts with a numeric value and a tolerance (or the one given for all others), for the layer of a model. */
export function spreadParts(
  circuit: Circuit,
  model: BenchModel,
  usual: (part: Part) => number,
): SpreadPart[] {
  return circuit.parts.flatMap((part): SpreadPart[] => {
    const quantity = KINDS[part.kind].value;
    const isPassive = quantity === 'resistor' || quantity === 'capacitor' || quantity === 'inductor';
    const value = valueOnLayer(part, model.system.layer)?.value;
    const tolerance = part.tolerance ?? (isPassive ? usual(part) : 0);
    if (typeof value !== 'number' || tolerance === 0 || !model.system.device(part.ref).retune) return [];
    const group = typeof part['matched'] === 'string' ? part['matched'] : part.ref;
    return [{ ref: part.ref, value, tolerance, group }];
  });
}

export interface ToleranceOptions {
  readonly runs: number;
  readonly random: Random;
  readonly distribution?: 'uniform' | 'normal';
  readonly onProgress?: (fraction: number) => void;
}

export interface ToleranceAnswer {
  readonly mean: number;
  readonly sigma: number;
  readonly min: number;
  readonly max: number;
  readonly percentiles: Readonly<Record<'p1' | 'p5' | 'p25' | 'p50' | 'p75' | 'p95' | 'p99', number>>;
  /** Every part at the end of its tolerance that moves the value down, or up. */
  readonly worst: { readonly low: number; readonly high: number };
  /** Share of runs inside the wanted range; absent when nothing is wanted. */
  readonly yield?: number;
  /** Share of the variance that each part brings, to first order; largest first. */
  readonly contributions: readonly { readonly ref: string; readonly share: number }[];
  /** Runs that gave no value. */
  readonly failed: number;
}

const PROGRESS_EVERY = 250;
/** Tolerance limits stand at this many sigma of a normal spread (common practice). */
const NORMAL_SIGMAS = 3;
const PERCENTILES = { p1: 0.01, p5: 0.05, p25: 0.25, p50: 0.5, p75: 0.75, p95: 0.95, p99: 0.99 } as const;

/**
 * Runs with every part somewhere in its tolerance: the values of several readings, a run each, NaN where a reading has
 * none. The model is left as it was. `read` takes the values into a row of numbers, or null.
 */
export function toleranceRuns(
  model: BenchModel,
  parts: readonly SpreadPart[],
  readings: readonly (() => number | null)[],
  options: ToleranceOptions,
): Float64Array[] {
  const groups = [...new Set(parts.map((p) => p.group))];
  const groupOf = parts.map((p) => groups.indexOf(p.group));
  const deviations = new Float64Array(groups.length);
  const values = readings.map(() => new Float64Array(options.runs));
  const turned = parts.map((p) => ({ ref: p.ref, value: p.value }));
  for (let run = 0; run < options.runs; run += 1) {
    for (let g = 0; g < deviations.length; g += 1) deviations[g] = draw(options);
    parts.forEach((p, i) => (turned[i]!.value = p.value * (1 + p.tolerance * deviations[groupOf[i]!]!)));
    model.retuneAll(turned);
    readings.forEach((read, r) => (values[r]![run] = read() ?? Number.NaN));
    if (run % PROGRESS_EVERY === 0) options.onProgress?.(run / options.runs);
  }
  model.retuneAll(parts);
  options.onProgress?.(1);
  return values;
}

/** The reading with every part at the end of its tolerance that moves it down, and up, by the signs of the slopes. */
export function worstCase(
  model: BenchModel,
  parts: readonly SpreadPart[],
  slopes: readonly number[],
  read: () => number | null,
): { low: number | null; high: number | null } {
  const extreme = (sign: 1 | -1) => {
    model.retuneAll(
      parts.map((p, i) => ({
        ref: p.ref,
        value: p.value * (1 + sign * Math.sign(slopes[i]!) * p.tolerance),
      })),
    );
    return read();
  };
  const worst = { low: extreme(-1), high: extreme(1) };
  model.retuneAll(parts);
  return worst;
}

/**
 * Spread of a reading over the parts' tolerances: seeded Monte Carlo, worst case by the signs of the slopes, and the
 * shares of the variance. `read` gives the value of the model as it is turned, or null when there is none; `slopes` are
 * d value / d (relative deviation), a part each.
 */
export function toleranceOf(
  model: BenchModel,
  parts: readonly SpreadPart[],
  read: () => number | null,
  slopes: readonly number[],
  isWanted: ((value: number) => boolean) | undefined,
  options: ToleranceOptions,
): ToleranceAnswer {
  const [values] = toleranceRuns(model, parts, [read], options);
  return summariseRuns(
    values!,
    worstCase(model, parts, slopes, read),
    contributionsOf(parts, slopes),
    isWanted,
  );
}

function draw({ random, distribution }: ToleranceOptions): number {
  if (distribution !== 'normal') return 2 * random() - 1;
  // Box and Muller 1958, cut off at the limits as sorted parts are.
  for (;;) {
    const value = (Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())) / NORMAL_SIGMAS;
    if (Math.abs(value) <= 1) return value;
  }
}

/** Share of the variance that each part brings, to first order; largest first. */
export function contributionsOf(
  parts: readonly SpreadPart[],
  slopes: readonly number[],
): { ref: string; share: number }[] {
  const powers = parts.map((p, i) => (slopes[i]! * p.tolerance) ** 2);
  const total = powers.reduce((a, b) => a + b, 0);
  return parts
    .map((p, i) => ({ ref: p.ref, share: total > 0 ? powers[i]! / total : 0 }))
    .sort((a, b) => b.share - a.share);
}

/** Statistics of runs; those without a value (NaN) are counted apart. */
export function summariseRuns(
  runs: Float64Array,
  worst: { low: number | null; high: number | null },
  contributions: ToleranceAnswer['contributions'],
  isWanted: ((value: number) => boolean) | undefined,
): ToleranceAnswer {
  const sorted = runs.filter((v) => !Number.isNaN(v)).sort();
  const n = sorted.length;
  const failed = runs.length - n;
  const mean = sorted.reduce((a, b) => a + b, 0) / n;
  const sigma = Math.sqrt(sorted.reduce((a, v) => a + (v - mean) ** 2, 0) / Math.max(1, n - 1));
  const at = (part: number) => {
    const place = part * (n - 1);
    const below = Math.floor(place);
    return sorted[below]! + (place - below) * ((sorted[below + 1] ?? sorted[below]!) - sorted[below]!);
  };
  return {
    mean,
    sigma,
    min: sorted[0]!,
    max: sorted[n - 1]!,
    percentiles: Object.fromEntries(
      Object.entries(PERCENTILES).map(([name, part]) => [name, at(part)]),
    ) as ToleranceAnswer['percentiles'],
    worst: { low: worst.low ?? sorted[0]!, high: worst.high ?? sorted[n - 1]! },
    ...(isWanted ? { yield: sorted.filter(isWanted).length / Math.max(1, runs.length) } : {}),
    contributions,
    failed,
  };
}
