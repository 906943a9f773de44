import { Op, type Transaction } from 'sequelize';
import { WriteModel } from './models/index.ts';

/** Takes a key, where nobody has; false where somebody has. Waits while another transaction takes it. */
export async function insertKey(
  key: string,
  fingerprint: string,
  transaction: Transaction,
): Promise<boolean> {
  const [rows] = await WriteModel.sequelize!.query(
    'INSERT INTO writes (key, fingerprint, created_at) VALUES ($key, $fingerprint, now()) ON CONFLICT (key) DO NOTHING RETURNING key',
    { bind: { key, fingerprint }, transaction },
  );
  return (rows as unknown[]).length > 0;
}

/** Takes the keys that nobody has taken, all at once: those are answered. */
export async function insertKeys(keys: readonly string[], transaction: Transaction): Promise<Set<string>> {
  const [rows] = await WriteModel.sequelize!.query(
    `INSERT INTO writes (key, fingerprint, created_at) SELECT key, '', now() FROM unnest($keys::text[]) AS key
     ON CONFLICT (key) DO NOTHING RETURNING key`,
    { bind: { keys: [...keys] }, transaction },
  );
  return new Set((rows as { key: string }[]).map((row) => row.key));
}

/** What was done under a key. */
export const findKey = (key: string, transaction: Transaction): Promise<WriteModel | null> =>
  WriteModel.findByPk(key, { transaction });

/** Keeps where the answer to a key is found. */
export async function noteDone(
  key: string,
  done: Pick<WriteModel, 'status' | 'unitId' | 'sequence'>,
  transaction: Transaction,
): Promise<void> {
  await WriteModel.update(done, { where: { key }, transaction });
}

/** How long a repeated request is still recognised. */
const KEPT_DAYS = 14;

/** Removes the record of writes that nobody will repeat any more. */
export async function forgetOldWrites(): Promise<void> {
  const before = new Date(Date.now() - KEPT_DAYS * 24 * 3600 * 1000);
  await WriteModel.destroy({ where: { createdAt: { [Op.lt]: before } } });
}
