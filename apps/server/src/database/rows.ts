import type { Model, Transaction } from 'sequelize';

/** A row whose changes follow one another by a version. */
type Versioned = Model & { readonly version: number };

/** Changes a row, under its next version. */
export async function changeRow(
  row: Versioned,
  values: Readonly<Record<string, unknown>>,
  transaction: Transaction,
): Promise<void> {
  await row.update({ ...values, version: row.version + 1 }, { transaction });
}

/** Takes a row out of the record, or puts it back; it is kept, so that the step can be taken back. */
export const setRemoved = (row: Versioned, isRemoved: boolean, transaction: Transaction): Promise<void> =>
  changeRow(row, { removedAt: isRemoved ? new Date() : null }, transaction);

/** Withdraws a row that is never changed otherwise, or takes that back. */
export async function setWithdrawn(
  row: Model & { readonly withdrawnAt: Date | null },
  isWithdrawn: boolean,
  transaction: Transaction,
): Promise<void> {
  await row.update({ withdrawnAt: isWithdrawn ? new Date() : null }, { transaction });
}
