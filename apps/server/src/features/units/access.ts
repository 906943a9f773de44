import { unitResourceSchema, type UnitResource, type WriteAnswer } from '@zemble/contract';
import type { FastifyReply, FastifyRequest } from 'fastify';
import type { Sequelize, Transaction } from 'sequelize';
import type { UnitModel } from '../../database/models/index.ts';
import { watch } from '../../database/noted-rows.ts';
import { inSnapshot } from '../../database/snapshot.ts';
import { invalid, notFound } from '../../errors.ts';
import { writeOnce } from '../../writes.ts';
import { notifyEdits } from '../edits/repository.ts';
import { commitEdit } from '../edits/service.ts';
import { loadUnit, lockUnit } from './repository.ts';

/** The unit with everything that belongs to it, as it is at one moment. Throws 404. */
export const unitAtOneMoment = (database: Sequelize, id: string): Promise<UnitResource> =>
  inSnapshot(database, (transaction) => unitOrNotFound(id, transaction));

/** The unit with everything that belongs to it. Throws 404. */
export async function unitOrNotFound(id: string, transaction?: Transaction): Promise<UnitResource> {
  const unit = await loadUnit(id, transaction);
  if (!unit) throw notFound('unit', id);
  return unit;
}

/**
 * One write to one unit: locks it, carries the edit out once, and answers what it did.
 *
 * @param content what the request brings beside its body
 */
export async function changeUnit(
  database: Sequelize,
  request: FastifyRequest,
  reply: FastifyReply,
  unitId: string,
  status: number,
  change: (unit: UnitModel, transaction: Transaction) => Promise<void>,
  content?: Buffer,
): Promise<WriteAnswer> {
  const carryOut = async (transaction: Transaction, key: string) => {
    const unit = await lockUnit(unitId, transaction);
    if (!unit) throw notFound('unit', unitId);
    const before = { sets: unit.sets };
    const rows = watch(transaction);
    await change(unit, transaction);
    return commitEdit(unit, before, key, rows, transaction);
  };
  return writeOnce(database, request, reply, status, carryOut, content);
}

/** A write that puts a unit on the bench: its whole record is fetched, so that the answer names it only. */
export async function createUnitOnce(
  database: Sequelize,
  request: FastifyRequest,
  reply: FastifyReply,
  create: (transaction: Transaction) => Promise<UnitModel>,
): Promise<WriteAnswer> {
  return writeOnce(database, request, reply, 201, async (transaction) => {
    const { id, sequence } = await create(transaction);
    // What a file brought in is read as whoever looks will read it, before it is kept.
    const issue = unitResourceSchema.safeParse(await loadUnit(id, transaction)).error?.issues[0];
    if (issue)
      throw invalid(
        `The unit could not be shown: ${[...issue.path, ''].join(': ')}${issue.message}.`,
        'Correct it in the file and open it again.',
      );
    await notifyEdits(id, transaction);
    return { unitId: id, sequence, edits: [] };
  });
}
