import type { ReadoutOf } from '@zemble/contract';
import { magnitude, transferOver, type AdjointSlopes, type AnalysisSession } from '../analysis/index.ts';
import { rootBetween } from '../../base/numeric/index.ts';
import { dbToRatio, ratioToDb } from '../../base/quantity/index.ts';
import { needed, undefinedBecause, type ReadoutType } from './readout-type.ts';

/** Band in which a corner is looked for, Hz. */
const LOWEST_HZ = 1e-3;
const HIGHEST_HZ = 1e9;
const STEPS_PER_DECADE = 16;
/** A step is narrowed to a relative error under 1e-9: of frequency, or of the gain. */
const WIDTH = 1e-10;
const NEAR = 1e-11;
const BISECTIONS = 30;
const USUAL_DROP_DB = 3;
const USUAL_REFERENCE_HZ = 1000;

/** Where the gain has fallen by `dropDb` (default 3) from its value at `referenceHz` (default 1000), going out from there. */
export const corner: ReadoutType<'corner'> = {
  describe: (r) => `${r.side === 'high' ? 'treble' : 'bass'} corner, ${r.from} to ${r.to}`,
  compute: findCorner,
  slopes: cornerSlopes,
};

function findCorner(session: AnalysisSession, r: ReadoutOf<'corner'>): number {
  const [from, to] = [needed(r, 'from', r.from), needed(r, 'to', r.to)];
  const isHigh = needed(r, 'side', r.side) === 'high';
  const { referenceHz = USUAL_REFERENCE_HZ, dropDb = USUAL_DROP_DB } = r;
  const ratioAt = transferOver(session, from, to);
  const gainAt = (f: number) => magnitude(ratioAt(f));
  const reference = gainAt(referenceHz);
  if (reference === 0) throw undefinedBecause(r, `nothing of ${from} arrives at ${to} at ${referenceHz} Hz`);
  const threshold = reference * dbToRatio(-dropDb);
  const step = 10 ** ((isHigh ? 1 : -1) / STEPS_PER_DECADE);
  let inside = referenceHz;
  for (let f = referenceHz * step; f > LOWEST_HZ && f < HIGHEST_HZ; f *= step) {
    if (gainAt(f) < threshold) return cornerBetween(gainAt, inside, f, threshold);
    inside = f;
  }
  const side = isHigh ? 'above' : 'below';
  throw undefinedBecause(r, `the gain does not fall that far ${side} ${referenceHz} Hz`);
}

/** The frequency between `inside` (gain above) and `outside` (below), both gains and frequencies on logarithms. */
function cornerBetween(
  gainAt: (f: number) => number,
  inside: number,
  outside: number,
  threshold: number,
): number {
  const excess = (x: number) => Math.log(gainAt(Math.exp(x)) / threshold);
  const [low, high] = [Math.min(inside, outside), Math.max(inside, outside)].map(Math.log) as [
    number,
    number,
  ];
  const [atLow, atHigh] = [excess(low), excess(high)];
  // A zero of the response has no logarithm: the corner is looked for by halves.
  if (![atLow, atHigh].every(Number.isFinite)) return halved(gainAt, inside, outside, threshold);
  return Math.exp(rootBetween(excess, { low, atLow, high, atHigh, width: WIDTH, zero: NEAR }));
}

function halved(gainAt: (f: number) => number, inside: number, outside: number, threshold: number): number {
  for (let i = 0; i < BISECTIONS; i += 1) {
    const middle = Math.sqrt(inside * outside);
    if (gainAt(middle) < threshold) outside = middle;
    else inside = middle;
  }
  return Math.sqrt(inside * outside);
}

/** Relative step of frequency by which the steepness of the response is taken. */
const STEEPNESS_STEP = 1e-4;

/**
 * d corner / d (relative deviation): what a part moves the gain at the corner against that at the reference, by the
 * steepness of the response there.
 */
function cornerSlopes(adjoint: AdjointSlopes, session: AnalysisSession, r: ReadoutOf<'corner'>): number[] {
  const hz = findCorner(session, r);
  const [from, to] = [needed(r, 'from', r.from), needed(r, 'to', r.to)];
  const ratioAt = transferOver(session, from, to);
  const gainDb = (f: number) => ratioToDb(magnitude(ratioAt(f)));
  const steepness =
    (gainDb(hz * (1 + STEEPNESS_STEP)) - gainDb(hz * (1 - STEEPNESS_STEP))) / (2 * STEEPNESS_STEP);
  const atReference = adjoint.gainDb(from, to, r.referenceHz ?? USUAL_REFERENCE_HZ);
  return adjoint.gainDb(from, to, hz).map((s, i) => (-hz * (s - atReference[i]!)) / steepness);
}
