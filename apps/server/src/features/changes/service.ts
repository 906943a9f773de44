import { randomUUID } from 'node:crypto';
import type {
  ChangeSet,
  ChangeState,
  CreateChange,
  Done,
  FileChange,
  TickRequest,
  UpdateChange,
} from '@zemble/contract';
import {
  changeSentence,
  ledgerOf,
  readChanges,
  reportChanges,
  withStepTicked,
  type LedgerEntry,
  type Problem,
  type Tick,
} from '@zemble/core';
import type { Transaction } from 'sequelize';
import type { ChangeModel, UnitModel } from '../../database/models/index.ts';
import { changeRow } from '../../database/rows.ts';
import { invalid, notFound, stale } from '../../errors.ts';
import { appendLog } from '../log/repository.ts';
import { liveParts } from '../parts/repository.ts';
import { changeResource } from '../units/resources.ts';
import { moveStock } from '../drawer/service.ts';
import { circuitOf } from './circuit.ts';
import { findChange, insertChange, liveChanges } from './repository.ts';

/** A change with every text a number. Throws 422 naming the field that cannot be read, or the id that is taken. */
async function readable(
  unit: UnitModel,
  change: FileChange,
  except: string | undefined,
  transaction: Transaction,
): Promise<FileChange> {
  const others = (await liveChanges(unit.id, transaction)).filter((row) => row.id !== except);
  if (others.some((row) => row.definition.id === change.id))
    throw invalid(`There is a change "${change.id}" already.`, 'Give this one another id.');
  const problems: Problem[] = [];
  const parts = await liveParts(unit.id, transaction);
  const added = others.flatMap(({ definition }) =>
    definition.steps.flatMap((step) => (step.do === 'add' ? [step.part] : [])),
  );
  const [plain] = readChanges([change], [...parts, ...added], problems);
  if (problems[0]) throw invalid(problems[0].message, problems[0].hint);
  return plain!;
}

/** What a change does to the unit as it came, in words. */
async function wordsFor(
  unit: UnitModel,
  { id, name }: FileChange,
  transaction: Transaction,
): Promise<string> {
  const report = reportChanges(await circuitOf(unit, transaction)).find(({ change }) => change.id === id);
  return changeSentence(name, report?.does ?? []);
}

const STATE_WORDS: Readonly<Record<ChangeState, string>> = {
  planned: 'Planned',
  done: 'Done',
  undone: 'Taken back',
  dropped: 'Dropped',
};

export async function addChange(
  unit: UnitModel,
  { id = randomUUID(), change: file }: CreateChange,
  transaction: Transaction,
): Promise<void> {
  const change = await readable(unit, file, undefined, transaction);
  await insertChange(unit.id, change, transaction, id);
  const does = await wordsFor(unit, change, transaction);
  const why = change.why === undefined || change.why === '' ? '' : ` ${change.why}`;
  const moved = await moveStock(unit, null, change, transaction);
  await appendLog(
    unit,
    {
      kind: 'change',
      summary: `${STATE_WORDS[change.state]}: ${does}${why}${moved}`,
      inverse: [{ op: 'set-removed', of: 'change', id, removed: true }],
    },
    transaction,
  );
}

/** Changes a change. Throws 404, and 409 where it was changed since it was seen. */
export async function updateChange(
  unit: UnitModel,
  id: string,
  request: UpdateChange,
  transaction: Transaction,
): Promise<void> {
  const row = await findChange(unit.id, id, transaction);
  if (!row) throw notFound('change', id);
  if (row.version !== request.baseVersion) throw stale(row.definition.name, changeResource(row));
  const before = row.definition;
  const change = await readable(unit, request.change, id, transaction);
  await changeRow(row, { definition: change }, transaction);
  const moved = await moveStock(unit, before, change, transaction);
  await appendLog(
    unit,
    {
      kind: 'change',
      summary: `${await sentenceFor(unit, before, row, transaction)}${moved}`,
      inverse: [{ op: 'set', of: 'change', id, values: { definition: before } }],
    },
    transaction,
  );
}

/** Puts a change as a tick leaves it: one of its steps done, or all of it taken back. */
export async function tickInChange(
  unit: UnitModel,
  { words, isDone, measures }: TickRequest,
  { row: { id }, change: ticked, step, isRewritten }: NonNullable<Tick['change']>,
  replaced: Tick['replaced'],
  transaction: Transaction,
): Promise<void> {
  const row = await findChange(unit.id, id, transaction);
  if (!row) throw notFound('change', id);
  const before = row.definition;
  const isNow = (state: ChangeState) => ticked.state === state && before.state !== state;
  const change = isNow('done') && before.purpose !== 'diagnosis' ? { ...ticked, ...measures } : ticked;
  await changeRow(row, { definition: change }, transaction);
  const moved = await moveStock(unit, before, change, transaction);
  const less = await doLess(unit.id, replaced, transaction);
  const said = step === undefined ? '' : isDone ? words : `Not done after all: ${words}`;
  const stands = isNow('done') || isNow('undone') ? ` ${STATE_WORDS[change.state]}: ${change.name}.` : '';
  const done = step === undefined ? null : (before.steps[step]?.done ?? null);
  await appendLog(
    unit,
    {
      kind: step === undefined ? 'change' : 'bench',
      summary: `${said}${stands}${moved}`.trim(),
      inverse: [
        // By itself the tick is taken back alone; with other steps than before, the change as it was.
        step === undefined || isRewritten === true
          ? { op: 'set', of: 'change', id, values: { definition: before } }
          : { op: 'tick', id, step, done },
        ...less,
      ],
    },
    transaction,
  );
}

/** Plans that do less, since another was soldered in their place; answers what puts them back. */
async function doLess(
  unitId: string,
  replaced: Tick['replaced'],
  transaction: Transaction,
): Promise<{ op: 'set'; of: 'change'; id: string; values: { definition: FileChange } }[]> {
  const inverse = [];
  for (const { row, change } of replaced) {
    const kept = await findChange(unitId, row.id, transaction);
    if (!kept) continue;
    inverse.push({
      op: 'set' as const,
      of: 'change' as const,
      id: row.id,
      values: { definition: kept.definition },
    });
    await changeRow(kept, { definition: change }, transaction);
  }
  return inverse;
}

/** Puts a tick of a step back as it was, with what it took from the drawer. */
export async function untickInChange(
  unit: UnitModel,
  row: ChangeModel,
  { step, done }: { readonly step: number; readonly done: Done | null },
  transaction: Transaction,
): Promise<void> {
  const before = row.definition;
  const change = withStepTicked(before, step, done ?? undefined, new Date().toISOString());
  await changeRow(row, { definition: change }, transaction);
  await moveStock(unit, before, change, transaction);
}

/** What happened to a change, as a sentence of the log. */
async function sentenceFor(
  unit: UnitModel,
  before: FileChange,
  { definition: now }: ChangeModel,
  transaction: Transaction,
): Promise<string> {
  if (before.state !== now.state) {
    const word = now.state === 'planned' ? 'Planned again' : STATE_WORDS[now.state];
    return `${word}: ${now.name}.`;
  }
  if (JSON.stringify(before.steps) === JSON.stringify(now.steps))
    return `Changed what is said of ${now.name}.`;
  return `Changed ${await wordsFor(unit, now, transaction)}`;
}

/** What is temporary in a unit and still in force. */
export const openLedger = async (unit: UnitModel, transaction: Transaction): Promise<LedgerEntry[]> =>
  ledgerOf(reportChanges(await circuitOf(unit, transaction)));

/**
 * Whether a unit can have its sets. Throws 422 where an id is there twice, where more than one is active, and where a set that was
 * there before has gone and still has changes planned or done.
 */
export async function checkSets(
  { id, sets }: UnitModel,
  before: readonly ChangeSet[],
  transaction: Transaction,
): Promise<void> {
  const twice = sets.find((set, i) => sets.findIndex((other) => other.id === set.id) !== i);
  if (twice) throw invalid(`The set "${twice.id}" is there twice.`, 'Give one of them another id.');
  if (sets.filter((set) => set.active === true).length > 1)
    throw invalid('More than one set is active.', 'Make one of them active, or none.');
  const gone = before.filter((s) => !sets.some((k) => k.id === s.id));
  const rows = gone.length === 0 ? [] : await liveChanges(id, transaction);
  for (const set of gone) {
    const names = rows
      .map((row) => row.definition)
      .filter((c) => c.set === set.id && (c.state === 'planned' || c.state === 'done'))
      .map((c) => c.name);
    if (names.length > 0)
      throw invalid(
        `The set ${set.name ?? set.id} still has ${names.join(', ')}.`,
        'Drop its changes or put them into another set first.',
      );
  }
}
