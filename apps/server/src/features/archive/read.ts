import { buffer } from 'node:stream/consumers';
import { ROW_KINDS, unitResourceSchema, unkeepableIn, workshopSchema, type RowOf } from '@zemble/contract';
import type { Sequelize, Transaction } from 'sequelize';
import { openPromise, type Entry, type ZipFile } from 'yauzl';
import { ApiError } from '../../errors.ts';
import { isEmpty, loadUnit } from '../units/repository.ts';
import {
  archiveListSchema,
  DRAWER_NAME,
  drawerRecordSchema,
  LIST_NAME,
  recordSchema,
  sha256,
  WORKSHOP_NAME,
} from './record.ts';
import { insertDrawerRecord } from '../drawer/repository.ts';
import { keepMains } from '../workshop/repository.ts';
import { plannedChanges } from './planned-values.ts';
import { insertArchivedRows } from '../record/repository.ts';
import { countOn, insertUnitRow } from './repository.ts';

/** Largest file inside an archive that is read, bytes: a photo or a unit's whole record; and the list of all of them. */
const LARGEST_ENTRY = 300_000_000;
const LARGEST_LIST = 30_000_000;

const unusable = (detail: string): ApiError =>
  new ApiError(
    'invalid',
    detail,
    'Nothing was changed; try another copy, or leave out what cannot be restored with --leave-out.',
  );

/** What some bytes say as JSON; nothing where they are none. */
function jsonIn(bytes: Buffer): unknown {
  try {
    return JSON.parse(bytes.toString());
  } catch {
    return undefined;
  }
}

/** The files of an archive, by name. Throws 422 for what is no archive of a bench, or is damaged. */
class Archive {
  private readonly zip: ZipFile;
  private readonly entries: ReadonlyMap<string, Entry>;
  private files: Readonly<Record<string, string>> = {};

  private constructor(zip: ZipFile, entries: ReadonlyMap<string, Entry>) {
    this.zip = zip;
    this.entries = entries;
  }

  static async open(path: string): Promise<Archive> {
    let archive: Archive;
    try {
      const zip = await openPromise(path, { lazyEntries: true, autoClose: false });
      const entries = new Map<string, Entry>();
      for await (const entry of zip.eachEntry()) entries.set(entry.fileName, entry);
      archive = new Archive(zip, entries);
    } catch (error) {
      throw unusable(`${path} cannot be read as an archive: ${(error as Error).message}.`);
    }
    const list = archiveListSchema.safeParse(jsonIn(await archive.bytes(LIST_NAME)));
    if (!list.success) throw unusable(`${path} is no archive of a bench that this version reads.`);
    archive.files = list.data.files;
    const missing = Object.keys(archive.files).find((name) => !archive.entries.has(name));
    if (missing !== undefined) throw unusable(`${missing} is missing in the archive.`);
    return archive;
  }

  /** Whether the list names a file. */
  has(name: string): boolean {
    return name in this.files;
  }

  get records(): string[] {
    return Object.keys(this.files).filter((name) => name.endsWith('/record.json'));
  }

  /** A file that the list names, as it was written. */
  async listed(name: string): Promise<Buffer> {
    const bytes = await this.bytes(name);
    if (sha256(bytes) !== this.files[name]) throw unusable(`${name} in the archive is damaged.`);
    return bytes;
  }

  private async bytes(name: string): Promise<Buffer> {
    const entry = this.entries.get(name);
    if (!entry) throw unusable(`There is no ${name} in the archive: it is none of a bench.`);
    const most = name === LIST_NAME ? LARGEST_LIST : LARGEST_ENTRY;
    if (entry.uncompressedSize > most) throw unusable(`${name} in the archive is too large.`);
    try {
      // What says another size than it has ends with an error where that is passed.
      return await buffer(await this.zip.openReadStreamPromise(entry));
    } catch {
      throw unusable(`${name} in the archive is damaged.`);
    }
  }

  close(): void {
    this.zip.close();
  }
}

/** What came of a restore: how many units there are now, and which were left out, a sentence each. */
export interface Restored {
  readonly count: number;
  readonly leftOut: readonly string[];
}

/**
 * Puts everything of an archive onto an empty bench, under the ids, numbers and times that it had. All of it or nothing, unless
 * `leavesOut`: then a unit that cannot be restored is left out with a sentence.
 *
 * Throws 409 where there are units already, 422 for an archive that cannot be used.
 */
export async function restoreArchive(
  database: Sequelize,
  path: string,
  transaction: Transaction,
  { leavesOut = false }: { readonly leavesOut?: boolean } = {},
): Promise<Restored> {
  if (!(await isEmpty()))
    throw new ApiError(
      'not-empty',
      'There are units on this bench already.',
      'Restore onto an empty one: name a new data folder with --data DIR.',
    );
  const archive = await Archive.open(path);
  const leftOut: string[] = [];
  try {
    for (const name of archive.records) {
      try {
        // A savepoint: what of a bad unit was put in goes with it.
        await database.transaction({ transaction }, (inner) => restoreUnit(archive, name, inner));
      } catch (error) {
        if (!leavesOut || !(error instanceof ApiError)) throw error;
        leftOut.push(error.message);
      }
    }
    if (archive.has(DRAWER_NAME)) await restoreDrawer(archive, transaction);
    if (archive.has(WORKSHOP_NAME)) await restoreWorkshop(archive, transaction);
    await countOn(database, transaction);
    return { count: archive.records.length - leftOut.length, leftOut };
  } finally {
    archive.close();
  }
}

async function restoreUnit(archive: Archive, name: string, transaction: Transaction): Promise<void> {
  const json = jsonIn(await archive.listed(name));
  const record = recordSchema.safeParse(json);
  if (!record.success || unkeepableIn(json)) throw unusable(`${name} is no record of a unit.`);
  const { unit, ...lists } = record.data;
  const { id } = await inserted(name, () => insertUnitRow(unit, transaction));
  const folder = name.slice(0, name.lastIndexOf('/'));
  for (const { of, list } of ROW_KINDS) {
    const rows: Row[] = [];
    for (const row of lists[list]) {
      const beside =
        of === 'photo' ? { picture: await archive.listed(`${folder}/${String(row.id)}.jpg`) } : {};
      rows.push({ ...row, ...beside, unitId: id });
    }
    nameOnce(of, rows);
    if (of === 'change') rows.push(...plannedChanges(plannedOf(lists.parts, id)));
    await inserted(name, () => insertArchivedRows(of, rows, transaction));
  }
  // What could not be shown is not taken in.
  const shown = unitResourceSchema.safeParse(await loadUnit(id, transaction));
  if (!shown.success) throw unusable(`${name} cannot be shown: ${shown.error.issues[0]?.message ?? ''}.`);
}

/** Where the name of a row stands that a unit has once. */
const NAMES: Readonly<Partial<Record<RowOf, (row: Row) => Row & { ref?: unknown; id?: unknown }>>> = {
  part: (row) => row,
  readout: (row) => row.definition as Row,
  change: (row) => row.definition as Row,
};

/** Of rows that an older bench had twice under one name, the later ones get one of their own, as its migration gives them. */
function nameOnce(of: RowOf, rows: readonly Row[]): void {
  const holderOf = NAMES[of];
  if (!holderOf) return;
  const key = of === 'part' ? 'ref' : 'id';
  const taken = new Set<string>();
  for (const row of rows) {
    if (row.removedAt !== null && row.removedAt !== undefined) continue;
    const holder = holderOf(row);
    const name = String(holder[key]);
    let free = name;
    for (let n = 2; taken.has(free); n += 1) free = `${name.slice(0, 24)}-${n}`;
    taken.add(free);
    if (free !== name) holder[key] = free;
  }
}

async function restoreDrawer(archive: Archive, transaction: Transaction): Promise<void> {
  const json = jsonIn(await archive.listed(DRAWER_NAME));
  const record = drawerRecordSchema.safeParse(json);
  if (!record.success || unkeepableIn(json)) throw unusable(`${DRAWER_NAME} is no record of a drawer.`);
  await inserted(DRAWER_NAME, () => insertDrawerRecord(record.data, transaction));
}

async function restoreWorkshop(archive: Archive, transaction: Transaction): Promise<void> {
  const said = workshopSchema.safeParse(jsonIn(await archive.listed(WORKSHOP_NAME)));
  if (!said.success) throw unusable(`${WORKSHOP_NAME} is no record of a workshop.`);
  const { mainsHz } = said.data;
  if (mainsHz !== null) await keepMains(mainsHz, transaction);
}

type Row = Record<string, unknown>;

/** Values that parts of an archive of an earlier version had planned. */
const plannedOf = (parts: readonly Row[], unitId: string) =>
  parts.filter((p) => p.removedAt === null).map((p) => ({ unitId, ref: String(p.ref), planned: p.planned }));

async function inserted<T>(name: string, insert: () => Promise<T>): Promise<T> {
  try {
    return await insert();
  } catch (error) {
    throw unusable(`${name} cannot be kept: ${(error as Error).message}.`);
  }
}
