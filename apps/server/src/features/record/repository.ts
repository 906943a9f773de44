import { ROW_KINDS, rowKind, type AnyRowKind, type RowOf } from '@zemble/contract';
import type { Model, ModelStatic, OrderItem, Transaction } from 'sequelize';
import { ROW_MODELS, type RowModel } from '../../database/models/index.ts';

/** Columns that are not of the record itself: pictures stand beside it, and what a step did is read by followers only. */
const BESIDE: Readonly<Partial<Record<RowOf, readonly string[]>>> = { photo: ['picture'], log: ['effects'] };
/** Of those, what a row is archived without. */
const UNARCHIVED: typeof BESIDE = { ...BESIDE, log: ['effects', 'key'] };

const BY_POSITION: OrderItem[] = [
  ['position', 'ASC'],
  ['id', 'ASC'],
];
const ORDERS: Readonly<Record<AnyRowKind['order'], OrderItem[]>> = {
  added: BY_POSITION,
  position: BY_POSITION,
  time: [
    ['takenAt', 'ASC'],
    ['id', 'ASC'],
  ],
  newest: [['sequence', 'DESC']],
};

const modelOf = (of: RowOf): ModelStatic<Model> => ROW_MODELS[of];
/** Rows of a unit that are in its record now. */
const living = ({ goes }: AnyRowKind, unitId: string) =>
  goes === 'removed' ? { unitId, removedAt: null } : { unitId };

/** Rows of a kind that a unit has now, in their order. */
export async function rowsOf<Of extends RowOf>(
  of: Of,
  unitId: string,
  {
    transaction,
    limit,
  }: { readonly transaction?: Transaction | undefined; readonly limit?: number | undefined } = {},
): Promise<RowModel<Of>[]> {
  const kind: AnyRowKind = rowKind(of);
  const rows = await modelOf(of).findAll({
    where: living(kind, unitId),
    order: ORDERS[kind.order],
    attributes: { exclude: [...(BESIDE[of] ?? [])] },
    ...(limit === undefined ? {} : { limit }),
    ...(transaction ? { transaction } : {}),
  });
  return rows as RowModel<Of>[];
}

/** Rows of a kind that several units have now, in their order, by the unit; a unit without any is not among them. */
export async function rowsOfUnits<Of extends RowOf>(
  of: Of,
  unitIds: readonly string[],
  transaction: Transaction,
): Promise<ReadonlyMap<string, RowModel<Of>[]>> {
  const kind: AnyRowKind = rowKind(of);
  const rows = await modelOf(of).findAll({
    where: { unitId: [...unitIds], ...(kind.goes === 'removed' ? { removedAt: null } : {}) },
    order: ORDERS[kind.order],
    attributes: { exclude: [...(BESIDE[of] ?? [])] },
    transaction,
  });
  const found = new Map<string, RowModel<Of>[]>();
  for (const row of rows) {
    const unitId = String(row.get('unitId'));
    const known = found.get(unitId);
    if (known) known.push(row as RowModel<Of>);
    else found.set(unitId, [row as RowModel<Of>]);
  }
  return found;
}

/** How many rows of a kind a unit has, withdrawn ones too. */
export const countRows = (of: RowOf, unitId: string, transaction: Transaction): Promise<number> =>
  modelOf(of).count({ where: living(rowKind(of), unitId), transaction });

/** The row that a step has changed, live or not. */
export async function anyRow<Of extends RowOf>(
  of: Of,
  id: string,
  transaction: Transaction,
): Promise<RowModel<Of> | null> {
  return (await modelOf(of).findByPk(id, { transaction })) as RowModel<Of> | null;
}

/** A unit's rows of every kind, removed ones too, as an archive has them. */
export async function archivedRows(
  unitId: string,
  transaction: Transaction,
): Promise<Record<string, object[]>> {
  const lists: [string, object[]][] = [];
  for (const kind of ROW_KINDS) {
    const rows = await modelOf(kind.of).findAll({
      where: { unitId },
      order: kind.order === 'newest' ? [['sequence', 'ASC']] : ORDERS[kind.order],
      attributes: { exclude: [...(UNARCHIVED[kind.of] ?? [])] },
      transaction,
    });
    lists.push([kind.list, rows.map((row) => row.get({ plain: true }) as object)]);
  }
  return Object.fromEntries(lists);
}

/** Puts archived rows of a kind back. */
export async function insertArchivedRows(
  of: RowOf,
  rows: readonly Readonly<Record<string, unknown>>[],
  transaction: Transaction,
): Promise<void> {
  await modelOf(of).bulkCreate([...rows], { transaction, validate: true });
}
