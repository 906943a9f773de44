import type { Edit, Effect } from '@zemble/contract';
import { Op, type Transaction } from 'sequelize';
import { LogEntryModel, UnitModel } from '../../database/models/index.ts';
import type { TouchedRow } from '../../database/noted-rows.ts';
import { EDITS_CHANNEL } from './feed.ts';

/** Edits that are read at once; a follower that is further behind fetches the unit. */
export const MOST_EDITS = 200;

const editOf = ({ unitId, sequence, key, effects }: LogEntryModel): Edit => ({
  unitId,
  sequence,
  key,
  effects: [...effects!],
});

/**
 * Edits of a unit after a sequence, oldest first; null where some of them are no longer kept, or there are too many, so that
 * the unit has to be fetched.
 */
export async function editsAfter(unitId: string, sequence: number): Promise<Edit[] | null> {
  const rows = await LogEntryModel.findAll({
    where: { unitId, sequence: { [Op.gt]: sequence } },
    order: [['sequence', 'ASC']],
    limit: MOST_EDITS + 1,
  });
  const isWhole =
    rows.length <= MOST_EDITS && rows.every((r, i) => r.effects && r.sequence === sequence + i + 1);
  return isWhole ? rows.map(editOf) : null;
}

/** One edit by its place in a unit's record; none when it is no longer kept. */
export async function editAt(unitId: string, sequence: number, transaction?: Transaction): Promise<Edit[]> {
  const row = await LogEntryModel.findOne({
    where: { unitId, sequence },
    ...(transaction ? { transaction } : {}),
  });
  return row?.effects ? [editOf(row)] : [];
}

/** The step of the log that a transaction has made, among the rows that it touched; undefined where it made none. */
export const stepIn = (touched: readonly TouchedRow[], sequence: number): LogEntryModel | undefined =>
  touched
    .map((t) => t.row)
    .filter((row) => row instanceof LogEntryModel)
    .findLast((row) => row.sequence === sequence);

/** Keeps with a step what it did, and the key of the write that made it. */
export async function keepEffects(
  step: LogEntryModel,
  effects: Effect[],
  key: string,
  transaction: Transaction,
): Promise<void> {
  await step.update({ effects, key }, { transaction });
}

/** How many edits a unit has had; null when there is no such unit. */
export async function sequenceOf(unitId: string): Promise<number | null> {
  const unit = await UnitModel.findByPk(unitId, { attributes: ['sequence'] });
  return unit?.sequence ?? null;
}

/** Has every server process on this database told, once the transaction commits, that a unit has new edits. */
export async function notifyEdits(unitId: string, transaction: Transaction): Promise<void> {
  await LogEntryModel.sequelize!.query('SELECT pg_notify($channel, $unitId)', {
    bind: { channel: EDITS_CHANNEL, unitId },
    transaction,
  });
}

/** How long edits are kept for followers that were away. */
const KEPT_DAYS = 14;

/** Forgets what old edits did; the log keeps its words. */
export async function forgetOldEffects(): Promise<void> {
  await LogEntryModel.sequelize!.query(
    `UPDATE log_entries SET effects = NULL WHERE effects IS NOT NULL AND at < now() - make_interval(days => ${KEPT_DAYS})`,
  );
}
