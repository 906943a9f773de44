import type { Inverse, RowOf } from '@zemble/contract';
import { isSameThing } from '@zemble/core';
import type { Model, Transaction } from 'sequelize';
import type { ChangeModel, RowModel, UnitModel } from '../../database/models/index.ts';
import { changeRow, setRemoved, setWithdrawn } from '../../database/rows.ts';
import { ApiError, invalid, notFound } from '../../errors.ts';
import { retraceUnit } from '../beeps/service.ts';
import { untickInChange } from '../changes/service.ts';
import { moveStock } from '../drawer/service.ts';
import { turnRow } from '../photos/service.ts';
import { anyRow } from '../record/repository.ts';
import { putThings } from '../record/things.ts';
import { setFields } from '../units/fields.ts';
import { appendLog, inversesOf, markUndone, stepAt, stepSince } from './repository.ts';

export async function addNote(unit: UnitModel, text: string, transaction: Transaction): Promise<void> {
  await appendLog(unit, { kind: 'note', summary: text }, transaction);
}

/**
 * Takes back a step of the log, by its inverse. Steps that others made meanwhile do not stand in the way, but for one that
 * changed the very same thing: then 409 names it. Throws 404 for no such step, 422 for one that cannot be taken back.
 */
export async function undoStep(unit: UnitModel, sequence: number, transaction: Transaction): Promise<void> {
  const entry = await stepAt(unit.id, sequence, transaction);
  if (!entry) throw notFound('step', String(sequence));
  if (entry.undoneAt) throw invalid('That step was taken back already.', 'Take back another one.');
  const inverses = inversesOf(entry);
  if (inverses === null || inverses.length === 0)
    throw invalid('That step cannot be taken back.', 'Only steps made here can be taken back.');
  const since = await stepSince(
    unit.id,
    sequence,
    (later) => inverses.some((inverse) => isSame(later, inverse)),
    transaction,
  );
  if (since)
    throw new ApiError(
      'changed-since',
      `It was changed again since: ${since.summary}`,
      'Take that step back first, or change it by hand.',
    );
  for (const inverse of inverses.toReversed()) await applyInverse(unit, inverse, transaction);
  if (inverses.some(isOfTrace)) await retraceUnit(unit, transaction);
  await markUndone(entry, transaction);
  await appendLog(unit, { kind: 'undo', summary: `Took back: ${entry.summary}` }, transaction);
}

/** Whether it changes what the nets of the parts follow from. */
const isOfTrace = (inverse: Inverse): boolean =>
  'of' in inverse && (inverse.of === 'part' || inverse.of === 'beep');

/** Fields of the unit that an inverse sets as a whole. */
const wholeFields = (inverse: Inverse): readonly string[] =>
  inverse.op === 'set-unit' ? Object.keys(inverse.values) : [];

/** Whether two inverses are of one thing: an entity, a field of the unit, or something inside of one. */
function isSame(a: Inverse, b: Inverse): boolean {
  if (a.op === 'put-things' && b.op === 'put-things')
    return a.things.some((mine) => b.things.some((other) => isSameThing(mine, other)));
  const [whole, other] = a.op === 'put-things' || a.op === 'set-unit' ? [a, b] : [b, a];
  if (whole.op === 'put-things') return whole.things.some(({ at }) => wholeFields(other).includes(at[0]!));
  if (whole.op === 'set-unit')
    return other.op === 'put-things'
      ? other.things.some(({ at }) => wholeFields(whole).includes(at[0]!))
      : wholeFields(whole).some((field) => wholeFields(other).includes(field));
  if (a.op === 'tick' && b.op === 'tick') return a.id === b.id && a.step === b.step;
  return 'id' in a && 'id' in b && a.id === b.id;
}

/** Does what takes a step back. */
async function applyInverse(unit: UnitModel, inverse: Inverse, transaction: Transaction): Promise<void> {
  switch (inverse.op) {
    case 'set-unit':
      return setFields(unit, inverse.values, transaction);
    case 'put-things':
      await putThings(unit, inverse.things, transaction);
      return;
    case 'turn-photo':
      return withRow(
        'photo',
        inverse.id,
        (row) => turnRow(unit, row, inverse.turn, transaction),
        transaction,
      );
    case 'tick':
      return withRow(
        'change',
        inverse.id,
        (row) => untickInChange(unit, row, inverse, transaction),
        transaction,
      );
    case 'withdraw':
      return withRow(
        inverse.of,
        inverse.id,
        (row) => setWithdrawn(row as Parameters<typeof setWithdrawn>[0], inverse.withdrawn, transaction),
        transaction,
      );
    case 'set':
    case 'set-removed':
      return withRow(
        inverse.of,
        inverse.id,
        async (row) => {
          const work = () =>
            inverse.op === 'set'
              ? putBack(row, inverse.values, transaction)
              : setRemoved(row as Versioned, inverse.removed, transaction);
          return inverse.of === 'change' ? changing(unit, row as ChangeModel, work, transaction) : work();
        },
        transaction,
      );
  }
}

type Versioned = Parameters<typeof changeRow>[0];

/** Puts values back into a row: under a version of its own, where rows of its kind have one. */
async function putBack(
  row: RowModel<RowOf>,
  values: Readonly<Record<string, unknown>>,
  transaction: Transaction,
): Promise<void> {
  if ('version' in row.get()) await changeRow(row as Versioned, values, transaction);
  else await (row as Model).update(values, { transaction });
}

/** Puts a change of the circuit back, with what it took from the drawer. */
async function changing(
  unit: UnitModel,
  row: ChangeModel,
  work: () => Promise<void>,
  transaction: Transaction,
): Promise<void> {
  const inForce = () => (row.removedAt === null ? row.definition : null);
  const before = inForce();
  await work();
  await moveStock(unit, before, inForce(), transaction);
}

/** Does something with a row, where it is there still. */
async function withRow<Of extends RowOf>(
  of: Of,
  id: string,
  work: (row: RowModel<Of>) => Promise<void>,
  transaction: Transaction,
): Promise<void> {
  const row = await anyRow(of, id, transaction);
  if (row !== null) await work(row);
}
