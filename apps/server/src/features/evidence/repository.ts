import type { Transaction } from 'sequelize';
import { EvidenceModel } from '../../database/models/index.ts';

type NewEvidenceRow = EvidenceModel['_creationAttributes'];

export async function insertEvidence(row: NewEvidenceRow, transaction: Transaction): Promise<void> {
  await EvidenceModel.create(row, { transaction });
}

/** Tests that come with a unit, all at once. */
export async function insertAllEvidence(
  rows: readonly NewEvidenceRow[],
  transaction: Transaction,
): Promise<void> {
  await EvidenceModel.bulkCreate(rows, { transaction });
}

/** A test that is not withdrawn. */
export const findEvidence = (
  unitId: string,
  id: string,
  transaction: Transaction,
): Promise<EvidenceModel | null> =>
  EvidenceModel.findOne({ where: { unitId, id, withdrawnAt: null }, transaction });
