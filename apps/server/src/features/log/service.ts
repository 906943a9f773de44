import type { Transaction } from 'sequelize';
import {
  EvidenceModel,
  PartModel,
  PhotoModel,
  ReadingModel,
  ReadoutModel,
  type Inverse,
  type UnitModel,
} from '../../database/models/index.ts';
import { invalid, stale } from '../../errors.ts';
import { loadUnit } from '../units/repository.ts';
import { appendLog, lastUndoable } from './repository.ts';

export async function addNote(unit: UnitModel, text: string, transaction: Transaction): Promise<void> {
  await appendLog(unit, { kind: 'note', summary: text }, transaction);
}

/** Takes back the newest step that can be. Throws 409 when `sequence` is not it any more, 422 when there is none. */
export async function undoLast(unit: UnitModel, sequence: number, transaction: Transaction): Promise<void> {
  const entry = await lastUndoable(unit.id, transaction);
  if (!entry) throw invalid('There is no step to take back.', 'Only steps made here can be taken back.');
  if (entry.sequence !== sequence) throw stale('The log', await loadUnit(unit.id, transaction));
  for (const inverse of [...entry.inverse].reverse()) await apply(unit, inverse, transaction);
  await entry.update({ undoneAt: new Date() }, { transaction });
  await appendLog(unit, { kind: 'undo', summary: `Took back: ${entry.summary}` }, transaction);
}

async function apply(unit: UnitModel, inverse: Inverse, transaction: Transaction): Promise<void> {
  switch (inverse.op) {
    case 'set-part': {
      const row = await PartModel.findByPk(inverse.id, { transaction });
      await row?.update({ ...inverse.values, version: row.version + 1 }, { transaction });
      return;
    }
    case 'set-part-removed': {
      const row = await PartModel.findByPk(inverse.id, { transaction });
      await row?.update(
        { removedAt: inverse.removed ? new Date() : null, version: row.version + 1 },
        { transaction },
      );
      return;
    }
    case 'withdraw-reading':
      await ReadingModel.update({ withdrawnAt: new Date() }, { where: { id: inverse.id }, transaction });
      return;
    case 'set-reading':
      await ReadingModel.update(inverse.values, { where: { id: inverse.id }, transaction });
      return;
    case 'set-readout': {
      const row = await ReadoutModel.findByPk(inverse.id, { transaction });
      await row?.update({ ...inverse.values, version: row.version + 1 }, { transaction });
      return;
    }
    case 'set-readout-removed': {
      const row = await ReadoutModel.findByPk(inverse.id, { transaction });
      await row?.update(
        { removedAt: inverse.removed ? new Date() : null, version: row.version + 1 },
        { transaction },
      );
      return;
    }
    case 'withdraw-evidence':
      await EvidenceModel.update(
        { withdrawnAt: inverse.withdrawn ? new Date() : null },
        { where: { id: inverse.id }, transaction },
      );
      return;
    case 'set-photo': {
      const row = await PhotoModel.findByPk(inverse.id, { transaction });
      await row?.update({ ...inverse.values, version: row.version + 1 }, { transaction });
      return;
    }
    case 'set-photo-removed': {
      const row = await PhotoModel.findByPk(inverse.id, { transaction });
      await row?.update(
        { removedAt: inverse.removed ? new Date() : null, version: row.version + 1 },
        { transaction },
      );
      return;
    }
    case 'set-unit':
      await unit.update(inverse.values, { transaction });
  }
}
