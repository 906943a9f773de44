import type { ReadoutOf } from '@halfsplit/contract';
import { magnitude, transfer, type AnalysisSession } from '../analysis/index.ts';
import { dbToRatio } from '../quantity/index.ts';
import { needed, undefinedBecause, type ReadoutType } from './readout-type.ts';

/** Band in which a corner is looked for, Hz. */
const LOWEST_HZ = 1e-3;
const HIGHEST_HZ = 1e9;
const STEPS_PER_DECADE = 16;
/** Bisections of one step: a relative error under 1e-9. */
const BISECTIONS = 30;
const USUAL_DROP_DB = 3;
const USUAL_REFERENCE_HZ = 1000;

/** Where the gain has fallen by `dropDb` (default 3) from its value at `referenceHz` (default 1000), going out from there. */
export const corner: ReadoutType<'corner'> = {
  describe: (r) => `${r.side === 'high' ? 'treble' : 'bass'} corner, ${r.from} to ${r.to}`,
  compute: findCorner,
};

function findCorner(session: AnalysisSession, r: ReadoutOf<'corner'>): number {
  const [from, to] = [needed(r, 'from', r.from), needed(r, 'to', r.to)];
  const isHigh = needed(r, 'side', r.side) === 'high';
  const { referenceHz = USUAL_REFERENCE_HZ, dropDb = USUAL_DROP_DB } = r;
  const gainAt = (f: number) => magnitude(transfer(session, from, to, f));
  const reference = gainAt(referenceHz);
  if (reference === 0) throw undefinedBecause(r, `nothing of ${from} arrives at ${to} at ${referenceHz} Hz`);
  const threshold = reference * dbToRatio(-dropDb);
  const step = 10 ** ((isHigh ? 1 : -1) / STEPS_PER_DECADE);
  let inside = referenceHz;
  for (let f = referenceHz * step; f > LOWEST_HZ && f < HIGHEST_HZ; f *= step) {
    if (gainAt(f) < threshold) return bisect(gainAt, inside, f, threshold);
    inside = f;
  }
  const side = isHigh ? 'above' : 'below';
  throw undefinedBecause(r, `the gain does not fall that far ${side} ${referenceHz} Hz`);
}

/** The frequency between `inside` (gain above) and `outside` (below), on a log axis. */
function bisect(gainAt: (f: number) => number, inside: number, outside: number, threshold: number): number {
  for (let i = 0; i < BISECTIONS; i += 1) {
    const middle = Math.sqrt(inside * outside);
    if (gainAt(middle) < threshold) outside = middle;
    else inside = middle;
  }
  return Math.sqrt(inside * outside);
}
