import type { Sequelize } from 'sequelize';
import { ApiError } from '../../errors.ts';
import { deleteAttempts, takeAttempt } from './repository.ts';

/** Attempts that cost no waiting. */
const FREE = 5;

/**
 * Longest wait between two attempts, s: at one name, so that somebody who guesses cannot keep its owner out for long; and
 * from one address.
 */
const LONGEST_S = { name: 60, address: 900 } as const;

export type AttemptOf = keyof typeof LONGEST_S;

const keyOf = (of: AttemptOf, what: string) => `${of} ${what.toLowerCase()}`;

/**
 * Counts an attempt at a secret before it is looked at, so that many at once are counted too. After a few, each doubles the
 * time until the next. Throws 429 with the seconds to wait.
 */
export async function countAttempt(database: Sequelize, of: AttemptOf, what: string): Promise<void> {
  const seconds = await takeAttempt(database, keyOf(of, what), FREE, LONGEST_S[of]);
  if (seconds === null) return;
  throw new ApiError(
    'too-many-attempts',
    `Too many attempts; wait ${seconds} s before the next one.`,
    'A forgotten passphrase can be set anew by the owner of the bench.',
  );
}

/** A secret was right: its name starts from nothing again. */
export const forgiveAttempts = (database: Sequelize, of: AttemptOf, what: string): Promise<void> =>
  deleteAttempts(database, keyOf(of, what));
