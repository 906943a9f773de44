import { QueryTypes, type Sequelize } from 'sequelize';
import { ApiError } from '../../errors.ts';

/** Attempts that cost no waiting. */
const FREE = 5;

/**
 * Longest wait between two attempts, s: at one name, so that somebody who guesses cannot keep its owner out for long; and
 * from one address.
 */
const LONGEST_S = { name: 60, address: 900 } as const;

/** Counts are forgotten after this without an attempt, hours. */
const FORGOTTEN_HOURS = 24;

export type AttemptOf = keyof typeof LONGEST_S;

const keyOf = (of: AttemptOf, what: string) => `${of} ${what.toLowerCase()}`;

/**
 * Counts an attempt at a secret before it is looked at, so that many at once are counted too. After a few, each doubles the
 * time until the next. Throws 429 with the seconds to wait.
 */
export async function countAttempt(database: Sequelize, of: AttemptOf, what: string): Promise<void> {
  const key = keyOf(of, what);
  const rows = await database.query(
    `INSERT INTO attempts AS a (key, count, blocked_until, at) VALUES ($key, 1, now(), now())
     ON CONFLICT (key) DO UPDATE SET
       count = a.count + 1,
       at = now(),
       blocked_until = now() + make_interval(secs =>
         CASE WHEN a.count < $free THEN 0 ELSE least($longest, power(2, least(a.count - $free, 20))) END)
     WHERE a.blocked_until <= now()
     RETURNING a.key`,
    { bind: { key, free: FREE, longest: LONGEST_S[of] }, type: QueryTypes.SELECT },
  );
  if (rows.length > 0) return;
  const [blocked] = await database.query<{ seconds: number }>(
    `SELECT ceil(extract(epoch FROM blocked_until - now()))::int AS seconds FROM attempts WHERE key = $key`,
    { bind: { key }, type: QueryTypes.SELECT },
  );
  const seconds = Math.max(1, blocked?.seconds ?? 1);
  throw new ApiError(
    429,
    'too-many-attempts',
    'Too many attempts',
    `Too many attempts; wait ${seconds} s before the next one.`,
    'A forgotten passphrase can be set anew by the owner of the bench.',
  );
}

/** A secret was right: its name starts from nothing again. */
export async function forgiveAttempts(database: Sequelize, of: AttemptOf, what: string): Promise<void> {
  await database.query('DELETE FROM attempts WHERE key = $key', { bind: { key: keyOf(of, what) } });
}

/** Forgets counts that nobody has added to for long. */
export async function forgetAttempts(database: Sequelize): Promise<void> {
  await database.query(`DELETE FROM attempts WHERE at < now() - make_interval(hours => ${FORGOTTEN_HOURS})`);
}
