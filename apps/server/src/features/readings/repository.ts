import type { Transaction } from 'sequelize';
import { ReadingModel } from '../../database/models/index.ts';

type NewReadingRow = ReadingModel['_creationAttributes'];

export async function insertReading(row: NewReadingRow, transaction: Transaction): Promise<void> {
  await ReadingModel.create(row, { transaction });
}

/** Readings that come with a unit, all at once. */
export async function insertReadings(
  rows: readonly NewReadingRow[],
  transaction: Transaction,
): Promise<void> {
  await ReadingModel.bulkCreate(rows, { transaction });
}

/** A reading that is not withdrawn. */
export const findReading = (
  unitId: string,
  id: string,
  transaction: Transaction,
): Promise<ReadingModel | null> =>
  ReadingModel.findOne({ where: { unitId, id, withdrawnAt: null }, transaction });

/** Keeps what is told later of how something was read. */
export async function tellOfReading(
  row: ReadingModel,
  told: Partial<Pick<ReadingModel, 'red' | 'isAsDrawn'>>,
  transaction: Transaction,
): Promise<void> {
  await row.update(told, { transaction });
}
