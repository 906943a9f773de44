import { ZembleError } from '../../base/errors/index.ts';
import type { Random } from '../../base/numeric/index.ts';
import type { Reading } from './sensitivity.ts';
import type { AnalysisSession } from './session.ts';
import { deviated, groupsOf, type SpreadPart } from './spread-part.ts';

export interface ToleranceOptions {
  /** At least 1. */
  readonly runs: number;
  readonly random: Random;
  readonly distribution?: 'uniform' | 'normal';
  readonly onProgress?: (fraction: number) => void;
  /** Asked after each run; answering false ends the runs there. */
  readonly mayGoOn?: () => boolean;
}

/** Runs of a spread: what each reading gave, and how far every group deviated. */
export interface ToleranceRuns {
  /** A run each, NaN where a reading has no value; one array a reading. */
  readonly values: readonly Float64Array[];
  /** Deviation of each group in each run, as a part of its tolerance, run after run. */
  readonly deviations: Float64Array;
  readonly groups: number;
}

/** A share of the variance that a group of parts brings. */
export interface Contribution {
  /** The part, or the first of its group. */
  readonly ref: string;
  readonly share: number;
  /** All parts of its group, when they deviate together. */
  readonly together?: readonly string[];
}

export interface ToleranceAnswer {
  readonly mean: number;
  readonly sigma: number;
  readonly min: number;
  readonly max: number;
  readonly percentiles: Readonly<Record<'p1' | 'p5' | 'p25' | 'p50' | 'p75' | 'p95' | 'p99', number>>;
  /** The extremes over the box of tolerances; never milder than a run. */
  readonly worst: { readonly low: number; readonly high: number };
  /** Share of runs inside the wanted range; absent when nothing is wanted. */
  readonly yield?: number;
  /** Share of the variance that each part or group brings, largest first. */
  readonly contributions: readonly Contribution[];
  /** Share of the runs' variance that the slopes explain: near 1 the shares are what they say, far below they are not. */
  readonly explained: number;
  /** Said when the slopes do not explain the spread. */
  readonly note?: string;
  readonly runs: number;
  /** Runs that gave no value. */
  readonly failed: number;
}

const PROGRESS_EVERY = 250;
/** Tolerance limits stand at this many sigma of a normal spread (common practice). */
const NORMAL_SIGMAS = 3;
const PERCENTILES = { p1: 0.01, p5: 0.05, p25: 0.25, p50: 0.5, p75: 0.75, p95: 0.95, p99: 0.99 } as const;
/** Below this the shares are said not to be of first order. */
const FIRST_ORDER = 0.9;

/**
 * Runs with every part somewhere in its tolerance. Throws `analysis/bad-request` for fewer than one run.
 */
export function toleranceRuns(
  session: AnalysisSession,
  parts: readonly SpreadPart[],
  readings: readonly Reading[],
  options: ToleranceOptions,
): ToleranceRuns {
  const { runs } = options;
  if (!Number.isInteger(runs) || runs < 1)
    throw new ZembleError('analysis/bad-request', {
      where: 'Tolerance',
      detail: 'at least one run is needed',
    });
  const groups = groupsOf(parts);
  const count = groups.names.length;
  const deviations = new Float64Array(count * runs);
  const values = readings.map(() => new Float64Array(runs));
  let made = 0;
  while (made < runs) {
    const own = deviations.subarray(made * count, (made + 1) * count);
    for (let g = 0; g < count; g += 1) own[g] = draw(options);
    const turned = deviated(session, parts, groups, own);
    readings.forEach((read, r) => (values[r]![made] = read(turned) ?? Number.NaN));
    if (made % PROGRESS_EVERY === 0) options.onProgress?.(made / runs);
    made += 1;
    if (options.mayGoOn?.() === false) break;
  }
  options.onProgress?.(1);
  return {
    values: values.map((v) => v.subarray(0, made)),
    deviations: deviations.subarray(0, made * count),
    groups: count,
  };
}

function draw({ random, distribution }: ToleranceOptions): number {
  if (distribution !== 'normal') return 2 * random() - 1;
  // Box and Muller 1958, cut off at the limits as sorted parts are.
  for (;;) {
    const value = (Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())) / NORMAL_SIGMAS;
    if (Math.abs(value) <= 1) return value;
  }
}

/** Share of the variance that each group brings, by its slope; largest first. */
export function contributionsOf(parts: readonly SpreadPart[], slopes: readonly number[]): Contribution[] {
  const { names, groupOf } = groupsOf(parts);
  const moves = groupMoves(parts, slopes);
  const total = moves.reduce((sum, m) => sum + m * m, 0);
  return names
    .map((_, g): Contribution => {
      const refs = parts.filter((_p, i) => groupOf[i] === g).map((p) => p.ref);
      return {
        ref: refs[0]!,
        share: total > 0 ? moves[g]! ** 2 / total : 0,
        ...(refs.length > 1 ? { together: refs } : {}),
      };
    })
    .sort((a, b) => b.share - a.share);
}

/** What each group moves the reading at the end of its tolerance, to first order. */
function groupMoves(parts: readonly SpreadPart[], slopes: readonly number[]): Float64Array {
  const { names, groupOf } = groupsOf(parts);
  const moves = new Float64Array(names.length);
  parts.forEach((p, i) => {
    const g = groupOf[i]!;
    moves[g] = moves[g]! + slopes[i]! * p.tolerance;
  });
  return moves;
}

/** Deviations of the runs in which a reading was least and largest. */
export function extremeRuns({ deviations, groups }: ToleranceRuns, values: Float64Array): Float64Array[] {
  let [least, most] = [-1, -1];
  values.forEach((v, run) => {
    if (Number.isNaN(v)) return;
    if (least < 0 || v < values[least]!) least = run;
    if (most < 0 || v > values[most]!) most = run;
  });
  return [...new Set([least, most])]
    .filter((run) => run >= 0)
    .map((run) => deviations.slice(run * groups, (run + 1) * groups));
}

/**
 * Statistics of one reading's runs; those without a value (NaN) are counted apart. Throws `analysis/bad-request` when no
 * run gave a value.
 */
export function summariseRuns(
  runs: ToleranceRuns,
  values: Float64Array,
  parts: readonly SpreadPart[],
  slopes: readonly number[],
  worst: { low: number | null; high: number | null },
  isWanted: ((value: number) => boolean) | undefined,
): ToleranceAnswer {
  const sorted = values.filter((v) => !Number.isNaN(v)).sort();
  const n = sorted.length;
  if (n === 0)
    throw new ZembleError('analysis/bad-request', { where: 'Tolerance', detail: 'no run gave a value' });
  const mean = sorted.reduce((a, b) => a + b, 0) / n;
  const variance = sorted.reduce((a, v) => a + (v - mean) ** 2, 0) / Math.max(1, n - 1);
  const at = (part: number) => {
    const place = part * (n - 1);
    const below = Math.floor(place);
    return sorted[below]! + (place - below) * ((sorted[below + 1] ?? sorted[below]!) - sorted[below]!);
  };
  const [min, max] = [sorted[0]!, sorted[n - 1]!];
  const explained = explainedShare(runs, values, groupMoves(parts, slopes));
  return {
    mean,
    sigma: Math.sqrt(variance),
    min,
    max,
    percentiles: {
      p1: at(PERCENTILES.p1),
      p5: at(PERCENTILES.p5),
      p25: at(PERCENTILES.p25),
      p50: at(PERCENTILES.p50),
      p75: at(PERCENTILES.p75),
      p95: at(PERCENTILES.p95),
      p99: at(PERCENTILES.p99),
    },
    worst: { low: Math.min(worst.low ?? min, min), high: Math.max(worst.high ?? max, max) },
    ...(isWanted ? { yield: sorted.filter(isWanted).length / values.length } : {}),
    contributions: contributionsOf(parts, slopes),
    explained,
    ...(explained < FIRST_ORDER
      ? {
          note: `The shares follow the slopes at the middle, which explain ${Math.round(100 * explained)} % of the spread: the rest bends or comes of several parts together.`,
        }
      : {}),
    runs: values.length,
    failed: values.length - n,
  };
}

/** Part of the runs' variance that a straight law by the slopes explains, 0 to 1; 1 where nothing moves. */
function explainedShare(runs: ToleranceRuns, values: Float64Array, moves: Float64Array): number {
  const { deviations, groups } = runs;
  let [count, sum, sumOfRest, squares, restSquares] = [0, 0, 0, 0, 0];
  values.forEach((value, run) => {
    if (Number.isNaN(value)) return;
    let predicted = 0;
    for (let g = 0; g < groups; g += 1) predicted += moves[g]! * deviations[run * groups + g]!;
    count += 1;
    sum += value;
    sumOfRest += value - predicted;
  });
  const [mean, restMean] = [sum / count, sumOfRest / count];
  values.forEach((value, run) => {
    if (Number.isNaN(value)) return;
    let predicted = 0;
    for (let g = 0; g < groups; g += 1) predicted += moves[g]! * deviations[run * groups + g]!;
    squares += (value - mean) ** 2;
    restSquares += (value - predicted - restMean) ** 2;
  });
  const isStill = squares <= count * (LEAST_SPREAD * Math.abs(mean)) ** 2;
  return isStill ? 1 : Math.max(0, 1 - restSquares / squares);
}
/** A spread below this part of the value is rounding. */
const LEAST_SPREAD = 1e-12;
