import { randomUUID } from 'node:crypto';
import type { FileReadout } from '@zemble/contract';
import type { Transaction } from 'sequelize';
import { ReadoutModel } from '../../database/models/index.ts';

const live = (unitId: string) => ({ unitId, removedAt: null });

export const liveReadouts = (unitId: string, transaction: Transaction): Promise<ReadoutModel[]> =>
  ReadoutModel.findAll({ where: live(unitId), transaction });

export const findReadout = (
  unitId: string,
  id: string,
  transaction: Transaction,
): Promise<ReadoutModel | null> => ReadoutModel.findOne({ where: { ...live(unitId), id }, transaction });

const rowOf = (unitId: string, definition: FileReadout, position: number, id: string = randomUUID()) => ({
  id,
  unitId,
  version: 0,
  position,
  definition,
  removedAt: null,
});

/** Puts a readout behind the last one. */
export async function insertReadout(
  unitId: string,
  definition: FileReadout,
  transaction: Transaction,
  id: string,
): Promise<void> {
  const last = await ReadoutModel.max<number, ReadoutModel>('position', { where: { unitId }, transaction });
  await ReadoutModel.create(rowOf(unitId, definition, last === null ? 0 : last + 1, id), { transaction });
}

/** Puts readouts in one after the other, all at once. */
export const insertReadouts = (
  unitId: string,
  definitions: readonly FileReadout[],
  transaction: Transaction,
): Promise<ReadoutModel[]> =>
  ReadoutModel.bulkCreate(
    definitions.map((definition, position) => rowOf(unitId, definition, position)),
    { transaction },
  );
