import { createHash } from 'node:crypto';
import type { Model, ModelStatic, OrderItem, Transaction } from 'sequelize';
import { z } from 'zod';
import type { UnitModel } from '../../database/models/index.ts';
import {
  EvidenceModel,
  LogEntryModel,
  PartModel,
  PhotoModel,
  ReadingModel,
  ReadoutModel,
} from '../../database/models/index.ts';

/** The whole bench as one ZIP archive: a folder a unit with its record and pictures, and a list of everything at the end. */
export const ARCHIVE_FORMAT = 'halfsplit/bench';
export const ARCHIVE_VERSION = 1;
export const LIST_NAME = 'bench.json';

export const archiveListSchema = z.object({
  format: z.literal(ARCHIVE_FORMAT),
  version: z.literal(ARCHIVE_VERSION),
  /** SHA-256 of every other file of the archive, by its name. */
  files: z.record(z.string(), z.string()),
});
export type ArchiveList = z.infer<typeof archiveListSchema>;

interface Table {
  readonly name: string;
  readonly model: ModelStatic<Model>;
  readonly order: OrderItem[];
  /** Columns that are not of the record: pictures stand beside it, and what only followers of the moment need is left. */
  readonly without: readonly string[];
}

/** What a unit's record is made of, in an order in which each row finds those it refers to. */
export const RECORD_TABLES: readonly Table[] = [
  { name: 'parts', model: PartModel, order: ['position', 'id'], without: [] },
  { name: 'readouts', model: ReadoutModel, order: ['position', 'id'], without: [] },
  { name: 'readings', model: ReadingModel, order: ['takenAt', 'id'], without: [] },
  { name: 'evidence', model: EvidenceModel, order: ['takenAt', 'id'], without: [] },
  { name: 'photos', model: PhotoModel, order: ['position', 'id'], without: ['picture'] },
  { name: 'log', model: LogEntryModel, order: ['sequence'], without: ['effects', 'key'] },
];

const rowSchema = z.record(z.string(), z.unknown());
export const recordSchema = z.object({
  unit: rowSchema,
  ...Object.fromEntries(RECORD_TABLES.map(({ name }) => [name, z.array(rowSchema).max(200_000)])),
});

/** A unit's rows, removed ones too, so that its steps can still be taken back. */
export async function recordOf(unit: UnitModel, transaction: Transaction): Promise<string> {
  const tables: [string, object[]][] = [];
  for (const { name, model, order, without } of RECORD_TABLES) {
    const rows = await model.findAll({
      where: { unitId: unit.id },
      order: [...order],
      attributes: { exclude: [...without] },
      transaction,
    });
    tables.push([name, rows.map((row) => row.get({ plain: true }) as object)]);
  }
  return `${JSON.stringify({ unit: unit.get({ plain: true }), ...Object.fromEntries(tables) }, null, 1)}\n`;
}

/** Folder of a unit in the archive: its number and name, so that it can be found by hand. */
export function folderOf({ number, name }: UnitModel): string {
  const slug = name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 60);
  return `units/${String(number).padStart(4, '0')}-${slug || 'unit'}`;
}

export const sha256 = (bytes: Buffer): string => createHash('sha256').update(bytes).digest('hex');
