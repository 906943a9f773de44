import type { Sequelize, Transaction } from 'sequelize';
import { PhotoModel, UnitModel } from '../../database/models/index.ts';
import { archivedRows } from '../record/repository.ts';

/** All units, put away and deleted ones too, by their numbers. */
export const allUnits = (transaction: Transaction): Promise<UnitModel[]> =>
  UnitModel.findAll({ order: ['number'], transaction });

/** A unit with its rows, removed ones too, so that its steps can still be taken back. */
export const recordOf = async (
  unit: UnitModel,
  transaction: Transaction,
): Promise<Record<string, unknown>> => ({
  unit: unit.get({ plain: true }),
  ...(await archivedRows(unit.id, transaction)),
});

/** Ids of a unit's photos, removed ones too. */
export async function photoIds(unitId: string, transaction: Transaction): Promise<string[]> {
  const rows = await PhotoModel.findAll({
    where: { unitId },
    order: ['position', 'id'],
    attributes: ['id'],
    transaction,
  });
  return rows.map((row) => row.id);
}

/** A picture as it is kept. */
export async function keptPicture(id: string, transaction: Transaction): Promise<Buffer> {
  const row = await PhotoModel.findByPk(id, { attributes: ['picture'], transaction, rejectOnEmpty: true });
  return row.picture;
}

type Row = Readonly<Record<string, unknown>>;

export const insertUnitRow = (row: Row, transaction: Transaction): Promise<UnitModel> =>
  UnitModel.create(row as UnitModel['_creationAttributes'], { transaction });

/** Has the next unit numbered after those that there are. */
export async function countOn(database: Sequelize, transaction: Transaction): Promise<void> {
  await database.query(
    `SELECT setval(pg_get_serial_sequence('units', 'number'), max(number)) FROM units HAVING count(*) > 0`,
    { transaction },
  );
}
