import { readFile } from 'node:fs/promises';
import type { Change } from '@zemble/contract';
import {
  canChange,
  fitChange,
  plannedParts,
  readDrawerCsv,
  seriesNamed,
  solve as solveValues,
  unitOf,
  wantedRange,
  withActiveSet,
  type Drawer,
  type Proposal,
  type Readout,
  type UnitDocument,
} from '@zemble/core';
import { loadUnit } from '../file.ts';
import { UsageError, type Options } from '../options.ts';

const USUAL_SERIES = 'E24';
const USUAL_MOST = 20;
const USUAL_SECONDS = 20;

/**
 * `solve FILE [--readout ID] [--may R1,R2] [--keep ID,ID] [--series E24] [--drawer FILE.csv] [--most 20] [--seconds 20]`: ranked
 * value changes that bring a readout, or without `--readout` every one with a wanted range, into its range. `--keep` names
 * readouts that are to stay where they are, `--drawer` what is there to be used first. `--to-set ID` adds the best one as a
 * change of that set.
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
  const goals = goalsOf(document, options.text('readout'));
  const may =
    options.text('may')?.split(',') ??
    plannedParts(document.circuit)
      .filter(canChange)
      .map((p) => p.ref);
  const drawerPath = options.text('drawer');
  const request = {
    circuit: document.circuit,
    readouts: document.readouts,
    settings: document.settings,
    layer: options.text('layer') === undefined ? ('planned' as const) : options.layer(),
    goals: goals.map((g) => ({ readoutId: g.id, want: g.want! })),
    keep: options.text('keep')?.split(','),
    may,
    series: seriesNamed(options.text('series') ?? USUAL_SERIES),
    drawer: drawerPath === undefined ? undefined : await loadDrawer(drawerPath),
    withPairs: true,
    most: options.count('most', USUAL_MOST),
  };
  const { proposals, isComplete, tried, reason } = solveValues(request, {
    mayGoOn: options.untilSeconds(USUAL_SECONDS),
  });
  const [best] = proposals;
  const [only] = goals.length === 1 ? goals : [];
  return {
    ...(set !== undefined && best ? { change: changeOf(best, goals, document, set) } : {}),
    complete: isComplete,
    tried,
    ...(reason === undefined ? {} : { reason }),
    ...(only ? { readout: only.id, unit: unitOf(only, document.readouts) } : {}),
    goals: goals.map((g) => ({ id: g.id, unit: unitOf(g, document.readouts), want: g.want })),
    proposals: proposals.map((p) => ({
      changes: p.changes,
      inside: p.isInside,
      ...(only ? { value: p.goals[0]!.value, missBy: p.goals[0]!.missBy } : {}),
      goals: p.goals.map((g) => ({
        id: g.readoutId,
        value: g.value,
        missBy: Number.isFinite(g.missBy) ? g.missBy : null,
      })),
      harms: p.harms,
      mends: p.mends,
      limits: p.limits,
      ...(p.yield ? { yield: p.yield.share, advice: p.yield.advice } : {}),
      readouts: document.readouts.map((r, i) => ({
        id: r.id,
        value: p.answers[i]?.ok ? p.answers[i].value : null,
      })),
    })),
  };
}

/** Longest id of a change, with room for a number, and its longest name. */
const LONGEST_ID = 56;
const LONGEST_NAME = 120;

/** A proposal as a planned change of a set, with the readouts as they would be. */
function changeOf(
  { changes, answers }: Proposal,
  goals: readonly Readout[],
  { circuit, readouts }: UnitDocument,
  set: string,
): Change {
  const taken = new Set((circuit.changes ?? []).map((c) => c.id));
  const names = goals.map((g) => g.name).join(', ');
  const stem = `solve-${goals.map((g) => g.id).join('-')}`.slice(0, LONGEST_ID);
  let id = stem;
  for (let n = 2; taken.has(id); n += 1) id = `${stem}-${n}`;
  const values = new Map(changes.map((c) => [c.ref, c.value]));
  const predicted = readouts.map((r, i) => [r.id, answers[i]?.ok ? answers[i].value : null] as const);
  return {
    ...fitChange(id, values, {
      name: `${names}: ${changes.map((c) => c.ref).join(', ')}`.slice(0, LONGEST_NAME),
      purpose: 'modification',
      why: `Brings ${names} to where ${goals.length === 1 ? 'it is' : 'they are'} wanted.`,
      set,
    }),
    predicted: Object.fromEntries(predicted),
  };
}

function goalsOf(document: UnitDocument, id: string | undefined): Readout[] {
  if (id === undefined) {
    const goals = document.readouts.filter((r) => wantedRange(r.want));
    if (goals.length === 0) throw new UsageError('No readout of the file has a wanted range.');
    return goals;
  }
  const goal = document.readouts.find((r) => r.id === id);
  if (!goal) throw new UsageError(`There is no readout "${id}".`);
  if (!wantedRange(goal.want)) throw new UsageError(`Readout "${goal.id}" has no wanted range.`);
  return [goal];
}

/** A drawer from a file. Throws a UsageError that names the file, the line and what is wrong in it. */
async function loadDrawer(path: string): Promise<Drawer> {
  let text: string;
  try {
    text = await readFile(path, 'utf8');
  } catch {
    throw new UsageError(`The drawer ${path} cannot be read.`);
  }
  const { items, problems } = readDrawerCsv(text);
  const [first] = problems;
  if (first) throw new UsageError(`${path}: ${first.message}`);
  return items;
}
