import {
  AdjointSlopes,
  differenceSlopes,
  extremeRuns,
  summariseRuns,
  toleranceRuns,
  worstCase,
  type AnalysisSession,
  type Reading,
  type SpreadPart,
  type ToleranceAnswer,
  type ToleranceOptions,
  type ToleranceRuns,
  type TurnedPart,
} from '../analysis/index.ts';
import { readoutDefinitionOf, type Readout } from '@zemble/contract';
import { evaluateReadout, type ReadoutsAround } from './evaluate.ts';
import { adjointSlopesOf } from './registry.ts';
import { outsideBy, wantedRange } from './want.ts';

const reader =
  (readout: Readout, around: ReadoutsAround): Reading =>
  (session) => {
    const answer = evaluateReadout(session, readout, around);
    return answer.ok ? answer.value : null;
  };

/**
 * d value / d (relative deviation) of every part, in each readout's unit, a row a readout: by the adjoint system for kinds
 * that have one and are read with the controls as they stand, by central differences for the others. Throws
 * that there is no operating point, and what computing a readout throws.
 */
export function readoutSlopes(
  session: AnalysisSession,
  readouts: readonly Readout[],
  around: ReadoutsAround,
  parts: readonly TurnedPart[],
): number[][] {
  const canAll = parts.every((p) => session.system.canTurn(p.ref));
  let adjoint: AdjointSlopes | undefined;
  return readouts.map((readout) => {
    const slopes = canAll && readout.setting === undefined ? adjointSlopesOf(readout) : undefined;
    if (!slopes) return differenceSlopes(session, parts, reader(readout, around));
    adjoint ??= new AdjointSlopes(session, parts);
    return slopes(adjoint, session);
  });
}

/**
 * A share of a tolerance run for several readouts. Shares with different seeds can be made side by side and joined.
 * Throws `analysis/bad-request` for fewer than one run.
 */
export function readoutRuns(
  session: AnalysisSession,
  readouts: readonly Readout[],
  around: ReadoutsAround,
  parts: readonly SpreadPart[],
  options: ToleranceOptions,
): ToleranceRuns {
  return toleranceRuns(
    session,
    parts,
    readouts.map((r) => reader(r, around)),
    options,
  );
}

/** Readings taken for each end of the worst case of a readout that takes runs in time. */
const SLOW_EVALUATIONS = 60;

/** What the runs of one readout say, with its worst case and the parts' shares. */
export function summariseReadout(
  session: AnalysisSession,
  readout: Readout,
  around: ReadoutsAround,
  parts: readonly SpreadPart[],
  runs: ToleranceRuns,
  index = 0,
): ToleranceAnswer {
  const values = runs.values[index]!;
  const [slopes] = readoutSlopes(session, [readout], around, parts) as [number[]];
  const isWanted = wantedRange(readout.want)
    ? (value: number) => outsideBy(value, readout.want) === 0
    : undefined;
  const isSlow = readoutDefinitionOf(readout.kind).isSlow === true;
  const worst = worstCase(session, parts, slopes, reader(readout, around), {
    starts: extremeRuns(runs, values),
    ...(isSlow ? { evaluations: SLOW_EVALUATIONS } : {}),
  });
  return summariseRuns(runs, values, parts, slopes, worst, isWanted);
}
