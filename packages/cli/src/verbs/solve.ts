import {
  canChange,
  plannedParts,
  seriesNamed,
  solve as solveValues,
  unitOf,
  wantedRange,
  type UnitDocument,
} from '@halfsplit/core';
import { loadUnit } from '../file.ts';
import { UsageError, type Options } from '../options.ts';

const USUAL_SERIES = 'E24';
const USUAL_MOST = 20;
const USUAL_SECONDS = 20;

/**
 * `solve FILE [--readout ID] [--may R1,R2] [--series E24] [--most 20] [--seconds 20]`: ranked value changes that bring a readout (the
 * first with a wanted range, unless named) into its range.
 */
export async function solve(options: Options): Promise<unknown> {
  const document = await loadUnit(options);
  const goal = goalOf(document, options.text('readout'));
  const may =
    options.text('may')?.split(',') ??
    plannedParts(document.circuit)
      .filter(canChange)
      .map((p) => p.ref);
  const request = {
    circuit: document.circuit,
    readouts: document.readouts,
    settings: document.settings,
    layer: options.text('layer') === undefined ? 'planned' : options.layer(),
    goal: { readoutId: goal.id, want: goal.want! },
    may,
    series: seriesNamed(options.text('series') ?? USUAL_SERIES),
    withPairs: true,
    most: options.count('most', USUAL_MOST),
  };
  const { proposals, isComplete, tried } = solveValues(request, {
    mayGoOn: options.untilSeconds(USUAL_SECONDS),
  });
  return {
    complete: isComplete,
    tried,
    readout: goal.id,
    unit: unitOf(goal, document.readouts),
    proposals: proposals.map((p) => ({
      changes: p.changes,
      value: p.value,
      missBy: p.missBy,
      harms: p.harms,
      mends: p.mends,
      readouts: document.readouts.map((r, i) => ({
        id: r.id,
        value: p.answers[i]?.ok ? p.answers[i].value : null,
      })),
    })),
  };
}

function goalOf(document: UnitDocument, id: string | undefined) {
  const goal =
    id === undefined
      ? document.readouts.find((r) => wantedRange(r.want))
      : document.readouts.find((r) => r.id === id);
  if (!goal)
    throw new UsageError(
      id === undefined ? 'No readout of the file has a wanted range.' : `There is no readout "${id}".`,
    );
  if (!wantedRange(goal.want)) throw new UsageError(`Readout "${goal.id}" has no wanted range.`);
  return goal;
}
