import { createHash } from 'node:crypto';
import { isOfFormat, ROW_KINDS, type RowList } from '@zemble/contract';
import { z } from 'zod';
import type { UnitModel } from '../../database/models/index.ts';

/** The whole bench as one ZIP archive: a folder a unit with its record and pictures, and a list of everything at the end. */
export const ARCHIVE_FORMAT = 'zemble/bench';
export const ARCHIVE_VERSION = 1;
export const LIST_NAME = 'bench.json';
/** The drawer of the workshop, with what units took from it; an archive of an earlier version has none. */
export const DRAWER_NAME = 'drawer.json';
/** What holds for the whole workshop; an archive of an earlier version has none. */
export const WORKSHOP_NAME = 'workshop.json';

export const archiveListSchema = z.object({
  format: z.string().refine((said) => isOfFormat(said, ARCHIVE_FORMAT)),
  version: z.literal(ARCHIVE_VERSION),
  /** SHA-256 of every other file of the archive, by its name. */
  files: z.record(z.string(), z.string()),
  /** What of it would not be restored, a sentence each; absent where all of it would. */
  problems: z.array(z.string()).optional(),
});
export type ArchiveList = z.infer<typeof archiveListSchema>;

/** Rows of one kind that an archive holds at most, removed ones too. */
const MOST_ROWS = 200_000;
const rowSchema = z.record(z.string(), z.unknown());
/** The highest number of a unit: as many more have room behind it. */
const HIGHEST_NUMBER = 1_000_000_000;
export const recordSchema = z.object({
  unit: z.looseObject({
    number: z.number().int().min(1).max(HIGHEST_NUMBER),
    sequence: z.number().int().min(0).max(HIGHEST_NUMBER),
  }),
  ...(Object.fromEntries(
    // An archive of an earlier version has no changes or beeps.
    ROW_KINDS.map(({ list }) => [list, z.array(rowSchema).max(MOST_ROWS).default([])]),
  ) as Record<RowList, z.ZodDefault<z.ZodArray<typeof rowSchema>>>),
});

export const drawerRecordSchema = z.object({
  stock: z.array(rowSchema).max(100_000),
  moves: z.array(rowSchema).max(1_000_000),
});

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
