import { createHash } from 'node:crypto';
import { IDEMPOTENCY_HEADER, idempotencyKeySchema } from '@halfsplit/contract';
import type { FastifyReply, FastifyRequest } from 'fastify';
import { Op, type Sequelize, type Transaction } from 'sequelize';
import { WriteModel } from './database/models/index.ts';
import { ApiError } from './errors.ts';

export interface WriteAnswer<T> {
  readonly status: number;
  readonly body: T;
}

/**
 * Carries out a write once. The key, the change and the answer are one transaction: a repeated request gets the first
 * answer again, and a failed one leaves nothing behind.
 */
export async function writeOnce<T>(
  database: Sequelize,
  request: FastifyRequest,
  reply: FastifyReply,
  change: (transaction: Transaction) => Promise<WriteAnswer<T>>,
): Promise<T> {
  const key = keyOf(request);
  const fingerprint = createHash('sha256')
    .update(`${request.method} ${request.url}\n${JSON.stringify(request.body ?? null)}`)
    .digest('hex');
  const answer = await database.transaction(async (transaction): Promise<WriteAnswer<T>> => {
    // A second request with the same key waits here until the first one has committed.
    const isNew = await insertKey(key, fingerprint, transaction);
    if (!isNew) {
      const done = await WriteModel.findByPk(key, { transaction });
      if (done?.fingerprint !== fingerprint) {
        throw new ApiError(
          422,
          'key-reused',
          'Key used twice',
          'This idempotency key belongs to another request.',
          'Use a new key for a new change.',
        );
      }
      return { status: done.status ?? 200, body: done.answer as T };
    }
    const made = await change(transaction);
    await WriteModel.update({ status: made.status, answer: made.body }, { where: { key }, transaction });
    return made;
  });
  void reply.status(answer.status);
  return answer.body;
}

async function insertKey(key: string, fingerprint: string, transaction: Transaction): Promise<boolean> {
  const [rows] = await WriteModel.sequelize!.query(
    'INSERT INTO writes (key, fingerprint, created_at) VALUES ($key, $fingerprint, now()) ON CONFLICT (key) DO NOTHING RETURNING key',
    { bind: { key, fingerprint }, transaction },
  );
  return (rows as unknown[]).length > 0;
}

function keyOf(request: FastifyRequest): string {
  const parsed = idempotencyKeySchema.safeParse(request.headers[IDEMPOTENCY_HEADER]);
  if (parsed.success) return parsed.data;
  throw new ApiError(
    400,
    'key-missing',
    'Key missing',
    'A write needs an Idempotency-Key header of 8 to 128 characters.',
    'Send a new random key with each change, and the same key when repeating it.',
  );
}

/** How long a repeated request is still recognised. */
const KEPT_DAYS = 14;

/** Removes the record of writes that nobody will repeat any more. */
export async function forgetOldWrites(): Promise<void> {
  const before = new Date(Date.now() - KEPT_DAYS * 24 * 3600 * 1000);
  await WriteModel.destroy({ where: { createdAt: { [Op.lt]: before } } });
}
