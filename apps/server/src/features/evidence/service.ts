import { randomUUID } from 'node:crypto';
import type { EvidenceData } from '@halfsplit/contract';
import { evidenceSentence, preparePath } from '@halfsplit/core';
import type { Transaction } from 'sequelize';
import { EvidenceModel, type UnitModel } from '../../database/models/index.ts';
import { notFound } from '../../errors.ts';
import { appendLog } from '../log/repository.ts';

const pathOf = (unit: UnitModel) => preparePath(unit.path ?? { blocks: [], links: [] });

/** Records a test. Earlier ones stay: seen again is another test. */
export async function addEvidence(
  unit: UnitModel,
  definition: EvidenceData,
  transaction: Transaction,
): Promise<void> {
  const id = randomUUID();
  await EvidenceModel.create(
    { id, unitId: unit.id, definition, takenAt: new Date(), withdrawnAt: null },
    { transaction },
  );
  const summary = evidenceSentence(pathOf(unit), definition);
  const inverse = [{ op: 'withdraw-evidence' as const, id, withdrawn: true }];
  await appendLog(unit, { kind: 'evidence', summary, inverse }, transaction);
}

/** Withdraws one test, whichever it was. Throws 404. */
export async function withdrawEvidence(unit: UnitModel, id: string, transaction: Transaction): Promise<void> {
  const row = await EvidenceModel.findOne({ where: { id, unitId: unit.id, withdrawnAt: null }, transaction });
  if (!row) throw notFound('test', id);
  await row.update({ withdrawnAt: new Date() }, { transaction });
  const summary = `Withdrew: ${evidenceSentence(pathOf(unit), row.definition)}`;
  const inverse = [{ op: 'withdraw-evidence' as const, id, withdrawn: false }];
  await appendLog(unit, { kind: 'evidence', summary, inverse }, transaction);
}
