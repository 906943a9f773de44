import { randomUUID } from 'node:crypto';
import type { FileChange } from '@zemble/contract';
import type { Transaction } from 'sequelize';
import { ChangeModel } from '../../database/models/index.ts';

const live = (unitId: string) => ({ unitId, removedAt: null });

/** The changes of a unit in order. */
export const liveChanges = (unitId: string, transaction: Transaction): Promise<ChangeModel[]> =>
  ChangeModel.findAll({ where: live(unitId), order: [['position', 'ASC']], transaction });

export const findChange = (
  unitId: string,
  id: string,
  transaction: Transaction,
): Promise<ChangeModel | null> => ChangeModel.findOne({ where: { ...live(unitId), id }, transaction });

const rowOf = (unitId: string, definition: FileChange, position: number, id: string = randomUUID()) => ({
  id,
  unitId,
  version: 0,
  position,
  definition,
  removedAt: null,
});

/** Puts a change behind the last one. */
export async function insertChange(
  unitId: string,
  definition: FileChange,
  transaction: Transaction,
  id: string,
): Promise<void> {
  const last = await ChangeModel.max<number, ChangeModel>('position', { where: { unitId }, transaction });
  await ChangeModel.create(rowOf(unitId, definition, last === null ? 0 : last + 1, id), { transaction });
}

/** Puts changes in one after the other, all at once. */
export const insertChanges = (
  unitId: string,
  definitions: readonly FileChange[],
  transaction: Transaction,
): Promise<ChangeModel[]> =>
  ChangeModel.bulkCreate(
    definitions.map((definition, position) => rowOf(unitId, definition, position)),
    { transaction },
  );
