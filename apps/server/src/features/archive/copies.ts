import { mkdir, readdir, rename, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import type { Sequelize } from 'sequelize';
import { isEmpty } from '../units/repository.ts';
import { writeArchive } from './write.ts';

/** Daily copies that are kept. */
const KEPT = 14;
const NAME = /^bench-\d{4}-\d{2}-\d{2}\.zip$/;

/**
 * Keeps a copy of the bench for today, and the newest of those before. Does nothing where today's is there.
 *
 * @returns its path, or null where there was nothing to do
 */
export async function keepDailyCopy(database: Sequelize, folder: string): Promise<string | null> {
  const path = join(folder, `bench-${new Date().toISOString().slice(0, 10)}.zip`);
  await mkdir(folder, { recursive: true, mode: 0o700 });
  const isThere = await stat(path).then(
    () => true,
    () => false,
  );
  if (isThere || (await isEmpty())) return null;
  // Whole or not at all: a copy that was cut short is never taken for one.
  const unfinished = `${path}.${process.pid}`;
  try {
    await writeArchive(database, unfinished);
    await rename(unfinished, path);
  } finally {
    await rm(unfinished, { force: true });
  }
  const copies = (await readdir(folder)).filter((name) => NAME.test(name)).sort();
  for (const old of copies.slice(0, -KEPT)) await rm(join(folder, old), { force: true });
  return path;
}
