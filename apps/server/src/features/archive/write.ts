import { createWriteStream } from 'node:fs';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { Sequelize } from 'sequelize';
import { ZipFile } from 'yazl';
import { unitResourceSchema } from '@zemble/contract';
import { inSnapshot } from '../../database/snapshot.ts';
import {
  ARCHIVE_FORMAT,
  ARCHIVE_VERSION,
  DRAWER_NAME,
  folderOf,
  LIST_NAME,
  sha256,
  WORKSHOP_NAME,
  type ArchiveList,
} from './record.ts';
import { drawerRecord } from '../drawer/repository.ts';
import { workshop } from '../workshop/repository.ts';
import { loadUnit } from '../units/repository.ts';
import { allUnits, keptPicture, photoIds, recordOf } from './repository.ts';

/** Equal benches make equal archives: no entry says when it was written. */
const ENTRY = { mtime: new Date(1980, 0, 1), mode: 0o100600, forceDosTimestamp: true } as const;

const bytesOf = (json: unknown): Buffer => Buffer.from(`${JSON.stringify(json, null, 1)}\n`);

/**
 * Writes the whole bench, as it is at one moment, into a file. Each unit is read when its turn comes, so that a large bench
 * needs no more memory than its largest unit. Throws when the file cannot be written.
 *
 * @returns what of it would not be restored, a sentence each; it stands in the list of the archive too
 */
export async function writeArchive(database: Sequelize, path: string): Promise<readonly string[]> {
  let found: readonly string[] = [];
  await inSnapshot(database, async (transaction) => {
    const zip = new ZipFile();
    const files: Record<string, string> = {};
    const add = (name: string, make: () => Promise<Buffer>) =>
      zip.addReadStreamLazy(name, ENTRY, (done) => {
        make().then(
          (bytes) => {
            if (name !== LIST_NAME) files[name] = sha256(bytes);
            done(null, Readable.from([bytes]));
          },
          (error: unknown) => done(error, Readable.from([])),
        );
      });
    const problems: string[] = [];
    for (const unit of await allUnits(transaction)) {
      const folder = folderOf(unit);
      add(`${folder}/record.json`, async () => {
        const shown = unitResourceSchema.safeParse(await loadUnit(unit.id, transaction));
        if (!shown.success)
          problems.push(`${folder} would not be restored: ${shown.error.issues[0]?.message ?? ''}.`);
        return bytesOf(await recordOf(unit, transaction));
      });
      for (const id of await photoIds(unit.id, transaction))
        add(`${folder}/${id}.jpg`, () => keptPicture(id, transaction));
    }
    add(DRAWER_NAME, async () => bytesOf(await drawerRecord(transaction)));
    add(WORKSHOP_NAME, async () => bytesOf(await workshop(transaction)));
    add(LIST_NAME, () => {
      const list: ArchiveList = {
        format: ARCHIVE_FORMAT,
        version: ARCHIVE_VERSION,
        files,
        ...(problems.length > 0 ? { problems } : {}),
      };
      found = problems;
      return Promise.resolve(bytesOf(list));
    });
    zip.end();
    const failed = new Promise<never>((_, reject) => zip.on('error', reject));
    await Promise.race([pipeline(zip.outputStream, createWriteStream(path, { mode: 0o600 })), failed]);
  });
  return found;
}
