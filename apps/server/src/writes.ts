import { createHash } from 'node:crypto';
import { IDEMPOTENCY_HEADER, idempotencyKeySchema, type WriteAnswer } from '@zemble/contract';
import type { FastifyReply, FastifyRequest } from 'fastify';
import type { Sequelize, Transaction } from 'sequelize';
import { actAs } from './database/actor.ts';
import { findKey, insertKey, noteDone } from './database/keys.ts';
import { ApiError } from './errors.ts';
import { editAt } from './features/edits/repository.ts';

/**
 * Carries out a write once. The key and the change are one transaction: a repeated request is answered by what the first one
 * did, and a failed one leaves nothing behind.
 *
 * @param status of the answer
 * @param content what the request brings beside its body, as the bytes of a picture: the same key with another is refused
 */
export async function writeOnce(
  database: Sequelize,
  request: FastifyRequest,
  reply: FastifyReply,
  status: number,
  change: (transaction: Transaction, key: string) => Promise<WriteAnswer>,
  content?: Buffer,
): Promise<WriteAnswer> {
  const key = keyOf(request);
  const fingerprint = createHash('sha256')
    .update(`${request.method} ${request.url}\n${JSON.stringify(request.body ?? null)}\n`)
    .update(content ?? '')
    .digest('hex');
  const answer = await database.transaction(async (transaction): Promise<WriteAnswer> => {
    // A second request with the same key waits here until the first one has committed.
    if (request.person) actAs(transaction, request.person.name);
    const isNew = await insertKey(key, fingerprint, transaction);
    if (!isNew) return answerAgain(key, fingerprint, transaction);
    const made = await change(transaction, key);
    await noteDone(key, { status, unitId: made.unitId, sequence: made.sequence }, transaction);
    return made;
  });
  void reply.status(status);
  return answer;
}

/** What the first request with a key did. Throws 422 where the key came with something else. */
async function answerAgain(key: string, fingerprint: string, transaction: Transaction): Promise<WriteAnswer> {
  const done = await findKey(key, transaction);
  if (done?.fingerprint !== fingerprint || done.unitId === null || done.sequence === null) {
    throw new ApiError(
      'key-reused',
      'This idempotency key belongs to another request.',
      'Use a new key for a new change.',
    );
  }
  const edits = await editAt(done.unitId, done.sequence, transaction);
  return { unitId: done.unitId, sequence: done.sequence, edits: edits.filter((e) => e.key === key) };
}

function keyOf(request: FastifyRequest): string {
  const parsed = idempotencyKeySchema.safeParse(request.headers[IDEMPOTENCY_HEADER]);
  if (parsed.success) return parsed.data;
  throw new ApiError(
    'key-missing',
    'A write needs an Idempotency-Key header of 8 to 128 characters.',
    'Send a new random key with each change, and the same key when repeating it.',
  );
}
