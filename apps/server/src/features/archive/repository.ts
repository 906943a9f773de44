import type { Model, ModelStatic, OrderItem, Sequelize, Transaction } from 'sequelize';
import {
  BeepModel,
  ChangeModel,
  EvidenceModel,
  LogEntryModel,
  PartModel,
  PhotoModel,
  ReadingModel,
  ReadoutModel,
  UnitModel,
} from '../../database/models/index.ts';
import { RECORD_TABLES, type RecordTable } from './record.ts';

interface Table {
  readonly model: ModelStatic<Model>;
  readonly order: OrderItem[];
  /** Columns that are not of the record: pictures stand beside it, and what only followers of the moment need is left. */
  readonly without: readonly string[];
}

const TABLES: Readonly<Record<RecordTable, Table>> = {
  parts: { model: PartModel, order: ['position', 'id'], without: [] },
  readouts: { model: ReadoutModel, order: ['position', 'id'], without: [] },
  changes: { model: ChangeModel, order: ['position', 'id'], without: [] },
  readings: { model: ReadingModel, order: ['takenAt', 'id'], without: [] },
  evidence: { model: EvidenceModel, order: ['takenAt', 'id'], without: [] },
  beeps: { model: BeepModel, order: ['takenAt', 'id'], without: [] },
  photos: { model: PhotoModel, order: ['position', 'id'], without: ['picture'] },
  log: { model: LogEntryModel, order: ['sequence'], without: ['effects', 'key'] },
};

/** All units, put away and deleted ones too, by their numbers. */
export const allUnits = (transaction: Transaction): Promise<UnitModel[]> =>
  UnitModel.findAll({ order: ['number'], transaction });

/** A unit's rows, removed ones too, so that its steps can still be taken back. */
export async function recordOf(unit: UnitModel, transaction: Transaction): Promise<Record<string, unknown>> {
  const tables: [string, object[]][] = [];
  for (const name of RECORD_TABLES) {
    const { model, order, without } = TABLES[name];
    const rows = await model.findAll({
      where: { unitId: unit.id },
      order: [...order],
      attributes: { exclude: [...without] },
      transaction,
    });
    tables.push([name, rows.map((row) => row.get({ plain: true }) as object)]);
  }
  return { unit: unit.get({ plain: true }), ...Object.fromEntries(tables) };
}

/** Ids of a unit's photos, removed ones too. */
export async function photoIds(unitId: string, transaction: Transaction): Promise<string[]> {
  const { order } = TABLES.photos;
  const rows = await PhotoModel.findAll({
    where: { unitId },
    order: [...order],
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

export async function insertRows(
  table: RecordTable,
  rows: readonly Row[],
  transaction: Transaction,
): Promise<void> {
  await TABLES[table].model.bulkCreate([...rows], { transaction, validate: true });
}

/** Has the next unit numbered after those that there are. */
export async function countOn(database: Sequelize, transaction: Transaction): Promise<void> {
  await database.query(
    `SELECT setval(pg_get_serial_sequence('units', 'number'), max(number)) FROM units HAVING count(*) > 0`,
    { transaction },
  );
}
