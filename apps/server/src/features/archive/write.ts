import { createWriteStream } from 'node:fs';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { Transaction, type Sequelize } from 'sequelize';
import { ZipFile } from 'yazl';
import { PhotoModel, UnitModel } from '../../database/models/index.ts';
import {
  ARCHIVE_FORMAT,
  ARCHIVE_VERSION,
  folderOf,
  LIST_NAME,
  recordOf,
  sha256,
  type ArchiveList,
} from './record.ts';

/** Equal benches make equal archives: no entry says when it was written. */
const ENTRY = { mtime: new Date(1980, 0, 1), mode: 0o100600, forceDosTimestamp: true } as const;

/**
 * Writes the whole bench, as it is at one moment, into a file. Each unit is read when its turn comes, so that a large bench
 * needs no more memory than its largest unit. Throws when the file cannot be written.
 */
export async function writeArchive(database: Sequelize, path: string): Promise<void> {
  await database.transaction(
    { isolationLevel: Transaction.ISOLATION_LEVELS.REPEATABLE_READ },
    async (transaction) => {
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
      const units = await UnitModel.findAll({ order: ['number'], transaction });
      for (const unit of units) {
        const folder = folderOf(unit);
        add(`${folder}/record.json`, async () => Buffer.from(await recordOf(unit, transaction)));
        const photos = await PhotoModel.findAll({
          where: { unitId: unit.id },
          order: ['position', 'id'],
          attributes: ['id'],
          transaction,
        });
        for (const { id } of photos)
          add(`${folder}/${id}.jpg`, async () => {
            const row = await PhotoModel.findByPk(id, {
              attributes: ['picture'],
              transaction,
              rejectOnEmpty: true,
            });
            return row.picture;
          });
      }
      add(LIST_NAME, () => {
        const list: ArchiveList = { format: ARCHIVE_FORMAT, version: ARCHIVE_VERSION, files };
        return Promise.resolve(Buffer.from(`${JSON.stringify(list, null, 1)}\n`));
      });
      zip.end();
      const failed = new Promise<never>((_, reject) => zip.on('error', reject));
      await Promise.race([pipeline(zip.outputStream, createWriteStream(path, { mode: 0o600 })), failed]);
    },
  );
}
