import type { Model, Transaction } from 'sequelize';
import {
  EvidenceModel,
  PartModel,
  PhotoModel,
  ReadingModel,
  ReadoutModel,
  type Inverse,
  type UnitModel,
} from '../../database/models/index.ts';
import { ApiError, invalid, notFound } from '../../errors.ts';
import { turnRow } from '../photos/service.ts';
import { setFields } from '../units/fields.ts';
import { appendLog, stepAt, stepSince } from './repository.ts';

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
      409,
      'changed-since',
      'Changed since',
      `It was changed again since: ${since.summary}`,
      'Take that step back first, or change it by hand.',
    );
  for (const inverse of [...entry.inverse].reverse()) await applyInverse(unit, inverse, transaction);
  await entry.update({ undoneAt: new Date() }, { transaction });
  await appendLog(unit, { kind: 'undo', summary: `Took back: ${entry.summary}` }, transaction);
}

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
  const options = { transaction };
  switch (inverse.op) {
    case 'set-part':
      return putBack(await PartModel.findByPk(inverse.id, options), inverse.values, transaction);
    case 'set-part-removed':
      return putBack(await PartModel.findByPk(inverse.id, options), removal(inverse.removed), transaction);
    case 'set-readout':
      return putBack(await ReadoutModel.findByPk(inverse.id, options), inverse.values, transaction);
    case 'set-readout-removed':
      return putBack(await ReadoutModel.findByPk(inverse.id, options), removal(inverse.removed), transaction);
    case 'set-photo':
      return putBack(await PhotoModel.findByPk(inverse.id, options), inverse.values, transaction);
    case 'set-photo-removed':
      return putBack(await PhotoModel.findByPk(inverse.id, options), removal(inverse.removed), transaction);
    case 'turn-photo': {
      const row = await PhotoModel.findByPk(inverse.id, options);
      if (row) await turnRow(row, inverse.turn, transaction);
      return;
    }
    case 'withdraw-reading': {
      const row = await ReadingModel.findByPk(inverse.id, options);
      // Steps of an older record do not say it: they were all of readings that were taken.
      await row?.update({ withdrawnAt: (inverse.withdrawn ?? true) ? new Date() : null }, options);
      return;
    }
    case 'set-reading': {
      const row = await ReadingModel.findByPk(inverse.id, options);
      await row?.update(inverse.values, options);
      return;
    }
    case 'withdraw-evidence': {
      const row = await EvidenceModel.findByPk(inverse.id, options);
      await row?.update({ withdrawnAt: inverse.withdrawn ? new Date() : null }, options);
      return;
    }
    case 'set-unit':
      return setFields(unit, inverse.values, transaction);
  }
}

const removal = (isRemoved: boolean) => ({ removedAt: isRemoved ? new Date() : null });

/** Puts values back into a row, under a version of its own. */
async function putBack(
  row: (Model & { readonly version: number }) | null,
  values: Record<string, unknown>,
  transaction: Transaction,
): Promise<void> {
  await row?.update({ ...values, version: row.version + 1 }, { transaction });
}
