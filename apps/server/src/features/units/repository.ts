import {
  DELETED_DAYS,
  ROW_KINDS,
  UNIT_PLACES,
  type RowList,
  type Stage,
  type UnitList,
  type UnitListQuery,
  type UnitPlace,
  type UnitResource,
  type UnitSummary,
} from '@zemble/contract';
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import { UnitModel } from '../../database/models/index.ts';
import { rowsOf } from '../record/repository.ts';
import { rowResource, unitFields } from './resources.ts';

type NewUnit = Omit<UnitModel['_creationAttributes'], 'number'>;

/** Entries of the log that a unit is sent with: the newest ones. */
const LOG_LENGTH = 500;

export async function insertUnit(values: NewUnit, transaction: Transaction): Promise<UnitModel> {
  return UnitModel.create(values, { transaction });
}

/** The unit's row, locked until the transaction ends, so that two writes to a unit follow one another. */
export async function lockUnit(id: string, transaction: Transaction): Promise<UnitModel | null> {
  return UnitModel.findByPk(id, { transaction, lock: transaction.LOCK.UPDATE });
}

export async function findUnit(id: string, transaction: Transaction): Promise<UnitModel | null> {
  return UnitModel.findByPk(id, { transaction });
}

/** Changes columns of a unit's row as they are given. */
export async function changeUnitRow(
  unit: UnitModel,
  values: Readonly<Record<string, unknown>>,
  transaction: Transaction,
): Promise<void> {
  await unit.update(values, { transaction });
}

/** Removes the units that came from the demo, with all that belongs to them. */
export async function deleteDemo(transaction: Transaction): Promise<void> {
  await UnitModel.destroy({ where: { isDemo: true }, transaction });
}

/** Has nobody put a unit here yet? */
export async function isEmpty(): Promise<boolean> {
  return (await UnitModel.count()) === 0;
}

/** The units that were worked on last, as many as are asked for, and how many there are of them and in each place. */
export async function listUnits(
  database: Sequelize,
  { place, find, limit }: UnitListQuery,
): Promise<UnitList> {
  // What was typed is looked for as it stands: no sign of it has a meaning of its own.
  const bind = { place: place ?? null, find: find ?? '', limit };
  const rows = await database.query<SummaryRow>(
    `SELECT u.id, u.sequence, u.number, u.name, u.kind, u.hazards, u.stage, u.place, u.last_activity_at, u.is_demo,
       (SELECT count(*)::int FROM parts p WHERE p.unit_id = u.id AND p.removed_at IS NULL) AS part_count,
       (SELECT count(DISTINCT r.part_id)::int FROM readings r JOIN parts p ON p.id = r.part_id
         WHERE r.unit_id = u.id AND r.withdrawn_at IS NULL AND p.removed_at IS NULL) AS measured_count,
       (SELECT l.summary FROM log_entries l WHERE l.unit_id = u.id ORDER BY l.sequence DESC LIMIT 1) AS last_activity
     FROM units u WHERE ${ASKED_FOR} ORDER BY u.last_activity_at DESC, u.number DESC LIMIT $limit`,
    { type: QueryTypes.SELECT, bind },
  );
  const counted = await database.query<{ place: UnitPlace; count: number; asked: number }>(
    `SELECT u.place, count(*)::int AS count, (count(*) FILTER (WHERE ${ASKED_FOR}))::int AS asked
     FROM units u GROUP BY u.place`,
    { type: QueryTypes.SELECT, bind },
  );
  const countAt = new Map(counted.map((c) => [c.place, c.count]));
  return {
    units: rows.map(toSummary),
    total: counted.reduce((sum, c) => sum + c.asked, 0),
    places: Object.fromEntries(UNIT_PLACES.map((at) => [at, countAt.get(at) ?? 0])) as UnitList['places'],
  };
}

/** Which rows of `units u` are asked for. */
const ASKED_FOR = `($place::text IS NULL OR u.place = $place)
  AND ($find = '' OR position(lower($find) IN lower(u.name)) > 0 OR '#' || u.number = $find OR u.number::text = $find)`;

const toSummary = ({
  part_count,
  measured_count,
  last_activity_at,
  last_activity,
  is_demo,
  ...row
}: SummaryRow): UnitSummary => ({
  ...row,
  partCount: part_count,
  measuredCount: measured_count,
  lastActivityAt: last_activity_at.toISOString(),
  lastActivity: last_activity,
  ...(is_demo ? { isSample: true } : {}),
});

/** A row of the list of units, as the database names its columns. */
interface SummaryRow {
  readonly is_demo: boolean;
  readonly id: string;
  readonly sequence: number;
  readonly number: number;
  readonly name: string;
  readonly kind: string;
  readonly hazards: UnitSummary['hazards'];
  readonly stage: Stage;
  readonly place: UnitPlace;
  readonly part_count: number;
  readonly measured_count: number;
  readonly last_activity_at: Date;
  readonly last_activity: string | null;
}

/** How often each kind of block has been convicted, over all units. */
export async function repairHistory(database: Sequelize): Promise<Record<string, number>> {
  const rows = await database.query<{ kind: string; count: number }>(
    `SELECT c ->> 'kind' AS kind, count(*)::int AS count
     FROM units u, jsonb_array_elements(u.intake -> 'convicted') c
     WHERE jsonb_typeof(u.intake -> 'convicted') = 'array' AND c ->> 'kind' IS NOT NULL
     GROUP BY 1`,
    { type: QueryTypes.SELECT },
  );
  return Object.fromEntries(rows.map((r) => [r.kind, r.count]));
}

/** The whole unit as the API answers it. Null when there is none. */
export async function loadUnit(
  id: string,
  transaction?: Transaction,
  { wholeLog = false }: { readonly wholeLog?: boolean } = {},
): Promise<UnitResource | null> {
  const options = transaction ? { transaction } : {};
  const unit = await UnitModel.findByPk(id, options);
  if (!unit) return null;
  const lists: [string, unknown[]][] = [];
  for (const { of, list, order } of ROW_KINDS) {
    const limit = order === 'newest' && !wholeLog ? LOG_LENGTH : undefined;
    const rows = await rowsOf(of, id, { transaction, limit });
    lists.push([list, rows.map((row) => rowResource(of, row))]);
  }
  const rows = Object.fromEntries(lists) as Pick<UnitResource, RowList>;
  return {
    id: unit.id,
    number: unit.number,
    sequence: unit.sequence,
    ...unitFields(unit, rows.log[0]?.summary ?? null),
    ...rows,
  };
}

/** Forgets units that were deleted long ago, with all that belongs to them. */
export async function forgetDeleted(database: Sequelize): Promise<void> {
  await database.query(
    `DELETE FROM units WHERE place = 'deleted' AND last_activity_at < now() - make_interval(days => ${DELETED_DAYS})`,
  );
}
