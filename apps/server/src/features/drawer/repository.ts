import { randomUUID } from 'node:crypto';
import type { StockItem } from '@zemble/contract';
import { Op, type Model, type Transaction } from 'sequelize';
import { StockModel, StockMoveModel, UnitModel } from '../../database/models/index.ts';

/** The whole drawer, in the order of its kinds and places. */
export const allStock = (transaction: Transaction | null = null): Promise<StockModel[]> =>
  StockModel.findAll({ transaction, order: ['id'] });

/** The whole drawer, held until the transaction ends. */
export const heldStock = (transaction: Transaction): Promise<StockModel[]> =>
  StockModel.findAll({ order: ['id'], lock: transaction.LOCK.UPDATE, transaction });

/** The items that have something left, held until the transaction ends, so that no part is given twice. */
export const stockToTake = (transaction: Transaction): Promise<StockModel[]> =>
  StockModel.findAll({
    where: { count: { [Op.gt]: 0 } },
    order: ['id'],
    lock: transaction.LOCK.UPDATE,
    transaction,
  });

export const findStock = (id: string, transaction: Transaction): Promise<StockModel | null> =>
  StockModel.findByPk(id, { transaction, lock: transaction.LOCK.UPDATE });

/** How many items there are. */
export const countStock = (transaction: Transaction): Promise<number> => StockModel.count({ transaction });

/** Puts items in; one whose id is there already was put in before. */
export async function insertStock(
  items: readonly (StockItem & { readonly id: string })[],
  transaction: Transaction,
): Promise<void> {
  await StockModel.bulkCreate(
    items.map(({ id, count, ...item }) => ({ id, version: 0, count, item })),
    { transaction, ignoreDuplicates: true },
  );
}

/** Changes what is kept of an item, under its next version. */
export async function writeStock(
  row: StockModel,
  values: Partial<Pick<StockModel, 'count' | 'item'>>,
  transaction: Transaction,
): Promise<void> {
  await row.update({ ...values, version: row.version + 1 }, { transaction });
}

export const deleteStock = (row: StockModel, transaction: Transaction): Promise<void> =>
  row.destroy({ transaction });

/** What a change took from the drawer, or brought out for it. */
export const movesOf = (
  unitId: string,
  changeId: string,
  transaction: Transaction,
): Promise<StockMoveModel[]> => StockMoveModel.findAll({ where: { unitId, changeId }, transaction });

/** What all changes brought out that was put away or thrown away. */
export const allMovesOut = (transaction: Transaction): Promise<StockMoveModel[]> =>
  StockMoveModel.findAll({ where: { direction: 'out' }, transaction });

export async function noteMove(
  move: Omit<StockMoveModel['_creationAttributes'], 'id'>,
  transaction: Transaction,
): Promise<void> {
  await StockMoveModel.create({ id: randomUUID(), ...move }, { transaction });
}

export async function forgetMoves(moves: readonly StockMoveModel[], transaction: Transaction): Promise<void> {
  for (const move of moves) await move.destroy({ transaction });
}

/** The units that work is done on. */
export const unitsOnBench = (transaction: Transaction): Promise<UnitModel[]> =>
  UnitModel.findAll({ where: { place: 'bench' }, order: ['name'], transaction });

type Row = Record<string, unknown>;

/** The whole drawer with what units took from it, as an archive keeps it. */
export async function drawerRecord(transaction: Transaction): Promise<{ stock: Row[]; moves: Row[] }> {
  const plain = (rows: readonly Model[]) => rows.map((row) => row.get({ plain: true }) as Row);
  return {
    stock: plain(await allStock(transaction)),
    moves: plain(await StockMoveModel.findAll({ transaction, order: ['id'] })),
  };
}

/** Puts a drawer back as an archive has it, in place of what is there. */
export async function insertDrawerRecord(
  { stock, moves }: { readonly stock: readonly Row[]; readonly moves: readonly Row[] },
  transaction: Transaction,
): Promise<void> {
  await StockMoveModel.destroy({ where: {}, transaction });
  await StockModel.destroy({ where: {}, transaction });
  await StockModel.bulkCreate(stock as StockModel['_creationAttributes'][], { transaction });
  await StockMoveModel.bulkCreate(moves as StockMoveModel['_creationAttributes'][], { transaction });
}
