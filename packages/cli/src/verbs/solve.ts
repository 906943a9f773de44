import type { Change } from '@halfsplit/contract';
import {
  canChange,
  fitChange,
  plannedParts,
  seriesNamed,
  solve as solveValues,
  unitOf,
  wantedRange,
  withActiveSet,
  type Proposal,
  type Readout,
  type UnitDocument,
} from '@halfsplit/core';
import { loadUnit } from '../file.ts';
import { UsageError, type Options } from '../options.ts';

const USUAL_SERIES = 'E24';
const USUAL_MOST = 20;
const USUAL_SECONDS = 20;

/**
 * `solve FILE [--readout ID] [--may R1,R2] [--series E24] [--most 20] [--seconds 20]`: ranked value changes that bring a readout (the
 * first with a wanted range, unless named) into its range. `--to-set ID` adds the best one as a change of that set.
 */
export async function solve(options: Options): Promise<unknown> {
  const loaded = await loadUnit(options);
  const set = options.text('to-set');
  // What is to go into a set is searched for on top of it; a new set begins with what belongs to every one.
  const isThere = loaded.circuit.sets?.some((s) => s.id === set) === true;
  const document =
    set === undefined
      ? loaded
      : {
          ...loaded,
          circuit: isThere ? withActiveSet(loaded.circuit, set) : { ...loaded.circuit, sets: [] },
        };
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
  const [best] = proposals;
  return {
    ...(set !== undefined && best ? { change: changeOf(best, goal, document, set) } : {}),
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

/** Longest name of a change. */
const LONGEST_NAME = 120;

/** A proposal as a planned change of a set, with the readouts as they would be. */
function changeOf(
  { changes, answers }: Proposal,
  goal: Readout,
  { circuit, readouts }: UnitDocument,
  set: string,
): Change {
  const taken = new Set((circuit.changes ?? []).map((c) => c.id));
  let id = `solve-${goal.id}`;
  while (taken.has(id)) id = `${id}-2`;
  const values = new Map(changes.map((c) => [c.ref, c.value]));
  const predicted = readouts.map((r, i) => [r.id, answers[i]?.ok ? answers[i].value : null] as const);
  return {
    ...fitChange(id, values, {
      name: `${goal.name}: ${changes.map((c) => c.ref).join(', ')}`.slice(0, LONGEST_NAME),
      purpose: 'modification',
      why: `Brings ${goal.name} to where it is wanted.`,
      set,
    }),
    predicted: Object.fromEntries(predicted),
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
