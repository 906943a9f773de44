import { randomUUID } from 'node:crypto';
import type { createEvidenceSchema } from '@zemble/contract';
import { evidenceSentence, preparePath } from '@zemble/core';
import type { Transaction } from 'sequelize';
import type { z } from 'zod';
import type { UnitModel } from '../../database/models/index.ts';
import { setWithdrawn } from '../../database/rows.ts';
import { notFound } from '../../errors.ts';
import { timeOf } from '../../times.ts';
import { appendLog } from '../log/repository.ts';
import { findEvidence, insertEvidence } from './repository.ts';

type NewEvidence = z.output<typeof createEvidenceSchema>;

const pathOf = (unit: UnitModel) => preparePath(unit.path ?? { blocks: [], links: [] });

/** Records a test. Earlier ones stay: seen again is another test. */
export async function addEvidence(
  unit: UnitModel,
  { id = randomUUID(), takenAt, ...definition }: NewEvidence,
  transaction: Transaction,
): Promise<void> {
  const row = { id, unitId: unit.id, definition, takenAt: timeOf(takenAt), withdrawnAt: null };
  await insertEvidence(row, transaction);
  const summary = evidenceSentence(pathOf(unit), definition);
  const inverse = [{ op: 'withdraw' as const, of: 'evidence' as const, id, withdrawn: true }];
  await appendLog(unit, { kind: 'evidence', summary, inverse }, transaction);
}

/** Withdraws one test, whichever it was. Throws 404. */
export async function withdrawEvidence(unit: UnitModel, id: string, transaction: Transaction): Promise<void> {
  const row = await findEvidence(unit.id, id, transaction);
  if (!row) throw notFound('test', id);
  await setWithdrawn(row, true, transaction);
  const summary = `Withdrew: ${evidenceSentence(pathOf(unit), row.definition)}`;
  const inverse = [{ op: 'withdraw' as const, of: 'evidence' as const, id, withdrawn: false }];
  await appendLog(unit, { kind: 'evidence', summary, inverse }, transaction);
}
