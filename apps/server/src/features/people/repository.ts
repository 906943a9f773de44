import { Op, QueryTypes, fn, col, where, type Sequelize, type Transaction } from 'sequelize';
import { PairingModel, PersonModel, SessionModel } from '../../database/models/index.ts';
import { digestOf } from './secrets.ts';

/** A device stays signed in for as long as it is used within this time, days. */
const SESSION_DAYS = 90;
const DAY_MS = 24 * 3600 * 1000;
/** When a session was last used is kept to this, ms. */
const SEEN_MS = 3600 * 1000;

export const personByName = (name: string): Promise<PersonModel | null> =>
  PersonModel.findOne({ where: where(fn('lower', col('name')), name.toLowerCase()) });

export const personById = (id: string): Promise<PersonModel | null> => PersonModel.findByPk(id);

export const allPeople = (): Promise<PersonModel[]> => PersonModel.findAll({ order: [['createdAt', 'ASC']] });

export const isAnybodyKnown = async (): Promise<boolean> => (await PersonModel.count()) > 0;

export const insertPerson = (
  values: PersonModel['_creationAttributes'],
  transaction: Transaction,
): Promise<PersonModel> => PersonModel.create(values, { transaction });

export async function setPassphrase(person: PersonModel, hash: string): Promise<void> {
  await person.update({ passphrase: hash });
}

export async function deletePerson(id: string): Promise<void> {
  await PersonModel.destroy({ where: { id } });
}

export async function insertSession(token: string, personId: string): Promise<void> {
  const now = new Date();
  await SessionModel.create({ token: digestOf(token), personId, createdAt: now, seenAt: now });
}

/** Who a device's token belongs to; null where nobody is signed in with it any more. */
export async function personOf(token: string): Promise<PersonModel | null> {
  const session = await SessionModel.findByPk(digestOf(token));
  const age = session ? Date.now() - session.seenAt.getTime() : Infinity;
  if (!session || age > SESSION_DAYS * DAY_MS) return null;
  if (age > SEEN_MS) await session.update({ seenAt: new Date() });
  return PersonModel.findByPk(session.personId);
}

export async function endSession(token: string): Promise<void> {
  await SessionModel.destroy({ where: { token: digestOf(token) } });
}

/** Signs a person out on every device, or on every one but that of a token; codes that are still to be used let nobody in any more. */
export async function endSessions(personId: string, keptToken?: string): Promise<void> {
  const kept = keptToken === undefined ? {} : { token: { [Op.ne]: digestOf(keptToken) } };
  await SessionModel.destroy({ where: { personId, ...kept } });
  await PairingModel.destroy({ where: { personId } });
}

export async function insertPairing(code: string, personId: string, expiresAt: Date): Promise<void> {
  await PairingModel.create({ code: digestOf(code), personId, expiresAt, usedAt: null });
}

/** Uses a pairing code up; null where it is unknown, used or too old. One statement: of two devices one gets in. */
export async function takePairing(database: Sequelize, code: string): Promise<string | null> {
  const rows = await database.query<{ person_id: string }>(
    `UPDATE pairings SET used_at = now() WHERE code = $code AND used_at IS NULL AND expires_at > now()
     RETURNING person_id`,
    { bind: { code: digestOf(code) }, type: QueryTypes.SELECT },
  );
  return rows[0]?.person_id ?? null;
}

/** Forgets sessions and pairing codes that can no longer be used. */
export async function forgetSessions(): Promise<void> {
  const now = Date.now();
  await SessionModel.destroy({ where: { seenAt: { [Op.lt]: new Date(now - SESSION_DAYS * DAY_MS) } } });
  await PairingModel.destroy({ where: { expiresAt: { [Op.lt]: new Date(now - DAY_MS) } } });
}

/**
 * Counts an attempt, unless its time has not come: one statement, so that of many at once each is counted. One that costs
 * no waiting is never too early, though another that began a moment later was counted before it.
 *
 * @param free attempts that cost no waiting
 * @param longestS longest wait, s
 * @returns null, or the seconds to wait
 */
export async function takeAttempt(
  database: Sequelize,
  key: string,
  free: number,
  longestS: number,
): Promise<number | null> {
  const rows = await database.query(
    `INSERT INTO attempts AS a (key, count, blocked_until, at) VALUES ($key, 1, now(), now())
     ON CONFLICT (key) DO UPDATE SET
       count = a.count + 1,
       at = now(),
       blocked_until = now() + make_interval(secs =>
         CASE WHEN a.count < $free THEN 0 ELSE least($longestS, power(2, least(a.count - $free, 20))) END)
     WHERE a.count < $free OR a.blocked_until <= now()
     RETURNING a.key`,
    { bind: { key, free, longestS }, type: QueryTypes.SELECT },
  );
  if (rows.length > 0) return null;
  const [blocked] = await database.query<{ seconds: number }>(
    `SELECT ceil(extract(epoch FROM blocked_until - now()))::int AS seconds FROM attempts WHERE key = $key`,
    { bind: { key }, type: QueryTypes.SELECT },
  );
  return Math.max(1, blocked?.seconds ?? 1);
}

export async function deleteAttempts(database: Sequelize, key: string): Promise<void> {
  await database.query('DELETE FROM attempts WHERE key = $key', { bind: { key } });
}

/** Counts are forgotten after this without an attempt, hours. */
const FORGOTTEN_HOURS = 24;

/** Forgets counts that nobody has added to for long. */
export async function forgetAttempts(database: Sequelize): Promise<void> {
  await database.query(`DELETE FROM attempts WHERE at < now() - make_interval(hours => ${FORGOTTEN_HOURS})`);
}
