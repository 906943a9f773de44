import {
  AdjointSlopes,
  contributionsOf,
  differenceSlopes,
  summariseRuns,
  toleranceRuns,
  worstCase,
  type BenchModel,
  type SpreadPart,
  type ToleranceAnswer,
  type ToleranceOptions,
  type TurnedPart,
} from '../analysis/index.ts';
import type { Readout } from '../circuit/index.ts';
import { evaluateReadout, outsideBy, wantedRange } from './evaluate.ts';
import { READOUTS } from './registry.ts';

const reader =
  (model: BenchModel, readout: Readout, others: readonly Readout[]): (() => number | null) =>
  () => {
    const answer = evaluateReadout(model, readout, others);
    return answer.ok ? answer.value : null;
  };

/**
 * d value / d (relative deviation) of every part, in the readout's unit: by the adjoint system for kinds that have one,
 * by central differences for the others. Throws `NoOperatingPoint`, and what computing the readout throws.
 */
export function readoutSlopes(
  model: BenchModel,
  readout: Readout,
  others: readonly Readout[],
  parts: readonly TurnedPart[],
): number[] {
  const { slopes } = READOUTS[readout.kind];
  if (slopes) return slopes(new AdjointSlopes(model, parts), readout);
  return differenceSlopes(model, parts, reader(model, readout, others));
}

/**
 * A share of a tolerance run for several readouts: their values, a run each, NaN where there is none. Shares with
 * different seeds can be made side by side and joined.
 */
export function readoutRuns(
  model: BenchModel,
  readouts: readonly Readout[],
  others: readonly Readout[],
  parts: readonly SpreadPart[],
  options: ToleranceOptions,
): Float64Array[] {
  return toleranceRuns(
    model,
    parts,
    readouts.map((r) => reader(model, r, others)),
    options,
  );
}

/** What the runs of one readout say, with its worst case and the parts' shares. */
export function summariseReadout(
  model: BenchModel,
  readout: Readout,
  others: readonly Readout[],
  parts: readonly SpreadPart[],
  runs: Float64Array,
): ToleranceAnswer {
  const slopes = readoutSlopes(model, readout, others, parts);
  const isWanted = wantedRange(readout.want)
    ? (value: number) => outsideBy(value, readout.want) === 0
    : undefined;
  const worst = worstCase(model, parts, slopes, reader(model, readout, others));
  return summariseRuns(runs, worst, contributionsOf(parts, slopes), isWanted);
}
