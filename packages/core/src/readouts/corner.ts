import { magnitude, type BenchModel } from '../analysis/index.ts';
import { HalfsplitError } from '../errors.ts';
import { dbToRatio } from '../quantity/index.ts';
import type { Readout } from '../circuit/index.ts';
import { nameField, positiveField, type ReadoutType } from './readout-type.ts';

/** Band in which a corner is looked for, Hz. */
const LOWEST_HZ = 1e-3;
const HIGHEST_HZ = 1e9;
const STEPS_PER_DECADE = 16;
/** Bisections of one step: a relative error under 1e-9. */
const BISECTIONS = 30;
const USUAL_DROP_DB = 3;
const USUAL_REFERENCE_HZ = 1000;

/** Where the gain has fallen by `dropDb` (default 3) from its value at `referenceHz` (default 1000), going out from there. */
export const corner: ReadoutType = {
  unit: 'Hz',
  quantity: 'frequency',
  describe: (r) =>
    `${r['side'] === 'high' ? 'treble' : 'bass'} corner, ${String(r['from'])} to ${String(r['to'])}`,
  compute: (model, r) => findCorner(model, r),
};

function findCorner(model: BenchModel, r: Readout): number {
  const [from, to] = [nameField(r, 'from'), nameField(r, 'to')];
  const isHigh = r['side'] === 'high';
  const referenceHz = positiveField(r, 'referenceHz', USUAL_REFERENCE_HZ);
  const gainAt = (f: number) => magnitude(model.transfer(from, to, f));
  const threshold = gainAt(referenceHz) * dbToRatio(-positiveField(r, 'dropDb', USUAL_DROP_DB));
  const step = 10 ** ((isHigh ? 1 : -1) / STEPS_PER_DECADE);
  let inside = referenceHz;
  for (let f = referenceHz * step; f > LOWEST_HZ && f < HIGHEST_HZ; f *= step) {
    if (gainAt(f) < threshold) return bisect(gainAt, inside, f, threshold);
    inside = f;
  }
  const side = isHigh ? 'above' : 'below';
  throw new HalfsplitError('readout/not-defined', {
    where: r.name,
    detail: `the gain does not fall that far ${side} ${referenceHz} Hz`,
  });
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
