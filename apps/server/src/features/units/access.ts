import type { UnitResource } from '@halfsplit/contract';
import type { FastifyReply, FastifyRequest } from 'fastify';
import type { Sequelize, Transaction } from 'sequelize';
import type { UnitModel } from '../../database/models/index.ts';
import { notFound } from '../../errors.ts';
import { writeOnce } from '../../writes.ts';
import { loadUnit, lockUnit } from './repository.ts';

/** The unit with everything that belongs to it. Throws 404. */
export async function unitOrNotFound(id: string, transaction?: Transaction): Promise<UnitResource> {
  const unit = await loadUnit(id, transaction);
  if (!unit) throw notFound('unit', id);
  return unit;
}

/** One write to one unit: locks it, makes the change once, and answers the unit as it then is. */
export async function changeUnit(
  database: Sequelize,
  request: FastifyRequest,
  reply: FastifyReply,
  unitId: string,
  status: number,
  change: (unit: UnitModel, transaction: Transaction) => Promise<void>,
): Promise<UnitResource> {
  const answer = await writeOnce(database, request, reply, async (transaction) => {
    const unit = await lockUnit(unitId, transaction);
    if (!unit) throw notFound('unit', unitId);
    await change(unit, transaction);
    return { status, body: await unitOrNotFound(unitId, transaction) };
  });
  request.server.changes.tell(answer.id, answer.version);
  return answer;
}
