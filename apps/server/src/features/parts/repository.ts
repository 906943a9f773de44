import { randomUUID } from 'node:crypto';
import type { SheetPart } from '@zemble/contract';
import { Op, type Transaction } from 'sequelize';
import { PartModel } from '../../database/models/index.ts';

/** A part of a unit file, or of a request, as the columns of its row. */
export function columnsOf(part: SheetPart) {
  const {
    ref,
    kind,
    pins,
    marked,
    proven,
    planned: _plan,
    found: _found,
    foundParams: _beside,
    ...extra
  } = part;
  return { ref, kind, pins, marked: marked ?? null, proven: proven ?? null, extra };
}

export async function insertPart(
  unitId: string,
  position: number,
  part: SheetPart,
  transaction: Transaction,
  id: string = randomUUID(),
): Promise<PartModel> {
  return PartModel.create(
    { id, unitId, version: 0, position, removedAt: null, ...columnsOf(part) },
    { transaction },
  );
}

/** Puts parts in one after the other, all at once. */
export async function insertParts(
  unitId: string,
  parts: readonly SheetPart[],
  transaction: Transaction,
): Promise<PartModel[]> {
  const rows = parts.map((part, position) => ({
    id: randomUUID(),
    unitId,
    version: 0,
    position,
    removedAt: null,
    ...columnsOf(part),
  }));
  return PartModel.bulkCreate(rows, { transaction });
}

export async function findPart(
  unitId: string,
  id: string,
  transaction: Transaction,
): Promise<PartModel | null> {
  return PartModel.findOne({ where: { unitId, id, removedAt: null }, transaction });
}

/** The parts of a unit in their order. */
export const liveParts = (unitId: string, transaction: Transaction): Promise<PartModel[]> =>
  PartModel.findAll({ where: { unitId, removedAt: null }, order: [['position', 'ASC']], transaction });

/** The part that has a designator now; null when there is none. */
export async function livePartNamed(
  unitId: string,
  ref: string,
  transaction: Transaction,
): Promise<PartModel | null> {
  return PartModel.findOne({ where: { unitId, ref, removedAt: null }, transaction });
}

/** The position behind the last part. */
export async function nextPosition(unitId: string, transaction: Transaction): Promise<number> {
  const last = await PartModel.max<number, PartModel>('position', { where: { unitId }, transaction });
  return last === null ? 0 : last + 1;
}

/** Moves the parts from a position on down by one. */
export async function makeRoom(unitId: string, position: number, transaction: Transaction): Promise<void> {
  await PartModel.increment('position', { where: { unitId, position: { [Op.gte]: position } }, transaction });
}
