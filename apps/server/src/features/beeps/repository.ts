import type { BeepData } from '@zemble/contract';
import { col, fn, Op, where, type Transaction } from 'sequelize';
import { BeepModel, PartModel } from '../../database/models/index.ts';

type NewBeepRow = BeepModel['_creationAttributes'];

export async function insertBeep(row: NewBeepRow, transaction: Transaction): Promise<void> {
  await BeepModel.create(row, { transaction });
}

/** Beeps that come with a unit, all at once. */
export async function insertBeeps(rows: readonly NewBeepRow[], transaction: Transaction): Promise<void> {
  await BeepModel.bulkCreate(rows, { transaction });
}

/** The beeps of a unit in the order in which they were heard, withdrawn ones too. */
export const beepsOf = (unitId: string, transaction: Transaction): Promise<BeepModel[]> =>
  BeepModel.findAll({
    where: { unitId },
    order: [
      ['takenAt', 'ASC'],
      ['id', 'ASC'],
    ],
    transaction,
  });

/** What was heard, in that order, as nets are formed from it. */
export const heardOf = async (unitId: string, transaction: Transaction): Promise<BeepData[]> =>
  (await beepsOf(unitId, transaction)).map((b) => ({ ...b.definition, withdrawn: b.withdrawnAt !== null }));

/** A beep that is not withdrawn. */
export const findBeep = (unitId: string, id: string, transaction: Transaction): Promise<BeepModel | null> =>
  BeepModel.findOne({ where: { unitId, id, withdrawnAt: null }, transaction });

/** Says something else of a beep that was heard: through what, or how its part is called now. */
export const amendBeep = (
  row: BeepModel,
  definition: BeepModel['definition'],
  transaction: Transaction,
): Promise<BeepModel> => row.update({ definition }, { transaction });

/** Whether anything of a unit was left to beeping, or beeped: most units were typed with their nets. */
export async function isBeeped(unitId: string, transaction: Transaction): Promise<boolean> {
  if ((await BeepModel.count({ where: { unitId }, transaction })) > 0) return true;
  const left = where(fn('jsonb_exists', col('extra'), 'saidPins'), true);
  return (
    (await PartModel.count({ where: { [Op.and]: [{ unitId, removedAt: null }, left] }, transaction })) > 0
  );
}
