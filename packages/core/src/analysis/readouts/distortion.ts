import type { ReadoutOf } from '@zemble/contract';
import { periodicSteadyState, type AnalysisSession } from '../analysis/index.ts';
import { harmonics, totalHarmonicDistortion } from '../audio/index.ts';
import { ZembleError } from '../../base/errors/index.ts';
import { formatPlain, formatQuantity } from '../../base/quantity/index.ts';
import {
  checkTime,
  needed,
  undefinedBecause,
  type ReadoutContext,
  type ReadoutType,
} from './readout-type.ts';

/** Highest harmonic counted. */
const HIGHEST = 10;
type Driven = ReadoutOf<'thd' | 'headroom' | 'outputPower'>;

/** One period under a sine of some level, with what the next level can begin from. */
interface Period {
  /** Amplitudes of the mean, the fundamental and the harmonics at the output, V. */
  readonly amplitudes: readonly number[];
  readonly points: readonly Float64Array[];
}

/**
 * The periodic steady state at a level, all other signals silent at their offset. Throws where there is none.
 */
function periodAt(session: AnalysisSession, r: Driven, levelV: number, start?: Float64Array): Period {
  const [source, out] = [needed(r, 'source', r.source), needed(r, 'out', r.out)];
  const frequencyHz = needed(r, 'frequencyHz', r.frequencyHz);
  const node = session.system.node(out, `Readout "${r.name}"`);
  const driven = session.with({ drive: { source, levelV, frequencyHz }, silence: 'others' });
  const outcome = periodicSteadyState(driven, { periodS: 1 / frequencyHz, start });
  if (!outcome.ok)
    throw new ZembleError('readout/not-defined', {
      where: r.name,
      detail: plain(outcome.problem.message),
    });
  const wave = Float64Array.from(outcome.points, (x) => x[node]!);
  return { amplitudes: harmonics(wave, 1, HIGHEST), points: outcome.points };
}

const plain = (sentence: string) => sentence.replace(/\.$/, '');

/** Distortion of a period. Throws where nothing of the signal arrives. */
function distortionOf(r: Driven, { amplitudes }: Period): number {
  const ratio = totalHarmonicDistortion(amplitudes);
  if (Number.isNaN(ratio)) throw undefinedBecause(r, `nothing of ${r.source} arrives at ${r.out}`);
  return ratio;
}

/** Total harmonic distortion at a level, as a ratio: THD_F of harmonics 2 to 10 (IEC 60268-3). */
export const thd: ReadoutType<'thd'> = {
  describe: (r) =>
    `distortion at ${r.out}, ${formatQuantity(r.levelV ?? 0, 'V')} at ${formatQuantity(r.frequencyHz ?? 0, 'Hz')}`,
  compute: (session, r) => distortionOf(r, periodAt(session, r, needed(r, 'levelV', r.levelV))),
};

const USUAL_THD = 0.01;
const LEAST_LEVEL_V = 1e-4;
const LARGEST_LEVEL_V = 100;
const LEVEL_STEP = 10;
/** An output that grows by this part of what the level does is not at its limit yet. */
const GROWS = 0.6;
const FINE_STEP = 1.5;
/** The level is narrowed to this part of itself. */
const RESOLUTION = 1e-3;
const MOST_TRIALS = 24;
/** A guess keeps this part of the span away from its ends. */
const EDGE = 0.02;

/** A level with the distortion it makes; infinite where there is no steady state. */
interface Trial {
  readonly levelV: number;
  readonly distortion: number;
  /** Amplitude of the fundamental at the output, V. */
  readonly fundamentalV: number;
}

/** Where the limit is met, and what must be said beside it. */
interface Limit {
  readonly period: Period;
  readonly beside: string | undefined;
}

/**
 * The period at the largest level below clipping at which the distortion is within the limit. What distorts by more at low
 * level, as the crossing over of a class B stage, is passed by as long as the output still grows with the level.
 */
function limitPeriod(
  session: AnalysisSession,
  r: ReadoutOf<'headroom' | 'outputPower'>,
  context: ReadoutContext,
): Limit {
  const limit = r.thd ?? USUAL_THD;
  let known: Period | undefined;
  /** Tries a level, beginning where the last good one was; what has no steady state is beyond the limit. */
  const tried = (levelV: number): Trial => {
    checkTime(r, context);
    let period: Period;
    try {
      period = periodAt(session, r, levelV, known?.points[0]);
    } catch (error) {
      if (error instanceof ZembleError && levelV > LEAST_LEVEL_V)
        return { levelV, distortion: Number.POSITIVE_INFINITY, fundamentalV: 0 };
      throw error;
    }
    const distortion = distortionOf(r, period);
    if (distortion <= limit) known = period;
    return { levelV, distortion, fundamentalV: period.amplitudes[1]! };
  };
  const scan: Trial[] = [tried(LEAST_LEVEL_V)];
  for (let next = scan[0]!; next.levelV * LEVEL_STEP <= LARGEST_LEVEL_V * (1 + RESOLUTION);) {
    const before = next;
    next = tried(before.levelV * LEVEL_STEP);
    scan.push(next);
    const grows = next.fundamentalV >= GROWS * LEVEL_STEP * before.fundamentalV;
    if (next.distortion > limit && !grows) break;
  }
  const top = scan.at(-1)!;
  const at = scan.findLastIndex((t) => t.distortion <= limit);
  // Between two decades there may be a stretch within the limit that neither shows.
  let [low, high] = at >= 0 ? [scan[at]!, scan[at + 1]] : [undefined, top];
  for (
    let levelV = top.levelV / FINE_STEP;
    !low && levelV > top.levelV / LEVEL_STEP ** 2;
    levelV /= FINE_STEP
  ) {
    const trial = tried(levelV);
    if (trial.distortion <= limit) low = trial;
    else high = trial;
  }
  if (!low)
    throw undefinedBecause(
      r,
      `it distorts by more than ${(100 * limit).toPrecision(2)} % at every level, already at ${formatQuantity(LEAST_LEVEL_V, 'V')}`,
    );
  if (!high) throw undefinedBecause(r, `it does not distort up to ${formatQuantity(low.levelV, 'V')}`);
  /** What the lower end counts against the upper one, and which end was moved last. */
  let balance = 1;
  let moved: 'low' | 'high' | null = null;
  for (let i = 0; i < MOST_TRIALS && high.levelV > low.levelV * (1 + RESOLUTION); i += 1) {
    const next = tried(between(low, high, limit, balance));
    const end = next.distortion <= limit ? 'low' : 'high';
    // An end that stays twice counts for half (the Illinois rule, Dowell and Jarratt 1971).
    if (end !== moved) balance = 1;
    else balance *= end === 'low' ? 2 : 0.5;
    moved = end;
    if (end === 'low') low = next;
    else high = next;
  }
  return { period: known!, beside: crossoverWords(scan, low.levelV, limit) };
}

/** What distorts by more than the limit at levels below it, as a sentence; undefined where nothing does. */
function crossoverWords(scan: readonly Trial[], upToV: number, limit: number): string | undefined {
  const over = scan.filter((t) => t.levelV < upToV && t.distortion > limit && Number.isFinite(t.distortion));
  const worst = over.reduce<Trial | undefined>(
    (a, b) => (a && a.distortion >= b.distortion ? a : b),
    undefined,
  );
  if (!worst) return undefined;
  return `Below that it distorts more: ${formatPlain(100 * worst.distortion, 2)} % at ${formatQuantity(worst.levelV, 'V')} in.`;
}

/**
 * The level at which the limit is met if distortion goes as a power of the level; halfway where that says nothing.
 * `balance` is what the lower end counts against the upper one.
 */
function between(low: Trial, high: Trial, limit: number, balance: number): number {
  const [a, b] = [Math.log(low.levelV), Math.log(high.levelV)];
  const fa = Math.log(low.distortion / limit) * balance;
  const fb = Math.log(high.distortion / limit);
  const isUseful = Number.isFinite(fa) && Number.isFinite(fb) && fb > fa;
  const share = isUseful ? Math.min(1 - EDGE, Math.max(EDGE, -fa / (fb - fa))) : 0.5;
  return Math.exp(a + share * (b - a));
}

const said = (value: number, beside: string | undefined) =>
  beside === undefined ? value : { value, beside };

/** Largest fundamental at a net, V peak, before the distortion passes `thd` (default 1 %). */
export const headroom: ReadoutType<'headroom'> = {
  describe: (r) => `headroom at ${r.out}, ${formatQuantity(r.frequencyHz ?? 0, 'Hz')}`,
  compute(session, r, context) {
    const { period, beside } = limitPeriod(session, r, context);
    return said(period.amplitudes[1]!, beside);
  },
};

/** Largest power into a load, W, before the distortion at a net passes `thd`: over the period, direct current apart. */
export const outputPower: ReadoutType<'outputPower'> = {
  describe: (r) => `power into ${r.load}, ${formatQuantity(r.frequencyHz ?? 0, 'Hz')}`,
  compute(session, r, context) {
    const ref = needed(r, 'load', r.load);
    const load = session.circuit.parts.find((p) => p.ref === ref);
    if (!load) throw new ZembleError('circuit/unknown-part', { ref, where: `Readout "${r.name}"` });
    const { period, beside } = limitPeriod(session, r, context);
    const { points } = period;
    const device = session.system.device(ref);
    const mean = points[0]!.map((_, k) => points.reduce((sum, x) => sum + x[k]!, 0) / points.length);
    const whole = points.reduce((sum, x) => sum + device.report(x).power, 0) / points.length;
    // Heat goes with the square: what the mean alone makes is direct current's.
    return said(whole - device.report(mean).power, beside);
  },
};
