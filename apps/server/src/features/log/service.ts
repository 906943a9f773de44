import type { Transaction } from 'sequelize';
import type { ChangeModel, Inverse, UnitModel } from '../../database/models/index.ts';
import { changeRow, setRemoved, setWithdrawn } from '../../database/rows.ts';
import { ApiError, invalid, notFound } from '../../errors.ts';
import { retraceUnit } from '../beeps/service.ts';
import { moveStock } from '../drawer/service.ts';
import { turnRow } from '../photos/service.ts';
import { setFields } from '../units/fields.ts';
import { tellOfReading } from '../readings/repository.ts';
import { appendLog, entityOf, markUndone, stepAt, stepSince } from './repository.ts';

type EntityName = Parameters<typeof entityOf>[0];

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
  if (entry.inverse.length === 0)
    throw invalid('That step cannot be taken back.', 'Only steps made here can be taken back.');
  const since = await stepSince(
    unit.id,
    sequence,
    (later) => entry.inverse.some((inverse) => isSame(later, inverse)),
    transaction,
  );
  if (since)
    throw new ApiError(
      'changed-since',
      `It was changed again since: ${since.summary}`,
      'Take that step back first, or change it by hand.',
    );
  for (const inverse of [...entry.inverse].reverse()) await applyInverse(unit, inverse, transaction);
  if (entry.inverse.some(isOfTrace)) await retraceUnit(unit, transaction);
  await markUndone(entry, transaction);
  await appendLog(unit, { kind: 'undo', summary: `Took back: ${entry.summary}` }, transaction);
}

/** Whether it changes what the nets of the parts follow from. */
const isOfTrace = ({ op }: Inverse): boolean =>
  op === 'set-part' || op === 'set-part-removed' || op === 'withdraw-beep' || op === 'set-beep';

/** Whether two inverses are of one thing: an entity, or a field of the unit. */
function isSame(a: Inverse, b: Inverse): boolean {
  if (a.op === 'set-unit' || b.op === 'set-unit')
    return (
      a.op === 'set-unit' && b.op === 'set-unit' && Object.keys(a.values).some((field) => field in b.values)
    );
  return a.id === b.id;
}

/** Does what takes a step back. */
async function applyInverse(unit: UnitModel, inverse: Inverse, transaction: Transaction): Promise<void> {
  if (inverse.op === 'set-unit') return setFields(unit, inverse.values, transaction);
  const row = <Of extends EntityName>(of: Of) => entityOf(of, inverse.id, transaction);
  switch (inverse.op) {
    case 'set-part':
      return putBack(await row('part'), inverse.values, transaction);
    case 'set-readout':
      return putBack(await row('readout'), inverse.values, transaction);
    case 'set-change':
      return withRow(await row('change'), (r) =>
        changing(unit, r, () => changeRow(r, inverse.values, transaction), transaction),
      );
    case 'set-photo':
      return putBack(await row('photo'), inverse.values, transaction);
    case 'set-part-removed':
      return withRow(await row('part'), (r) => setRemoved(r, inverse.removed, transaction));
    case 'set-readout-removed':
      return withRow(await row('readout'), (r) => setRemoved(r, inverse.removed, transaction));
    case 'set-change-removed':
      return withRow(await row('change'), (r) =>
        changing(unit, r, () => setRemoved(r, inverse.removed, transaction), transaction),
      );
    case 'set-photo-removed':
      return withRow(await row('photo'), (r) => setRemoved(r, inverse.removed, transaction));
    case 'turn-photo':
      return withRow(await row('photo'), (r) => turnRow(unit, r, inverse.turn, transaction));
    case 'withdraw-reading':
      // Steps of an older record do not say it: they were all of readings that were taken.
      return withRow(await row('reading'), (r) => setWithdrawn(r, inverse.withdrawn ?? true, transaction));
    case 'withdraw-evidence':
      return withRow(await row('evidence'), (r) => setWithdrawn(r, inverse.withdrawn, transaction));
    case 'withdraw-beep':
      return withRow(await row('beep'), (r) => setWithdrawn(r, inverse.withdrawn, transaction));
    case 'set-beep':
      return withRow(await row('beep'), async (r) => {
        await r.update(inverse.values, { transaction });
      });
    case 'set-reading':
      return withRow(await row('reading'), (r) => tellOfReading(r, inverse.values, transaction));
  }
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
const withRow = async <Row>(row: Row | null, work: (row: Row) => Promise<void>): Promise<void> =>
  row === null ? undefined : work(row);

/** Puts values back into a row, under a version of its own. */
const putBack = (
  row: Parameters<typeof changeRow>[0] | null,
  values: Record<string, unknown>,
  transaction: Transaction,
): Promise<void> => withRow(row, (r) => changeRow(r, values, transaction));
