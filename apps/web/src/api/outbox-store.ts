import { FORMER_NAME } from '@zemble/contract';
import { openDB, type IDBPDatabase } from 'idb';
import { v7 as uuid } from 'uuid';
import { writeSchema, type Write } from './act.ts';

/** Where changes are kept until the server has them: one record each, shared by all pages of this browser. */
export interface OutboxStore {
  /** All that is kept, in the order in which it was made, and how many records could not be read. */
  load(): Promise<{ readonly writes: readonly Write[]; readonly unreadable: number }>;
  put(write: Write): Promise<void>;
  remove(key: string): Promise<void>;
}

const DATABASE = 'zemble';
const WRITES = 'writes';

/** The store of this browser (IndexedDB). Its promises are rejected where the browser keeps nothing, or its disk is full. */
export function browserStore(): OutboxStore {
  let opened: Promise<IDBPDatabase> | null = null;
  const database = () =>
    (opened ??= openDB(DATABASE, 1, {
      upgrade: (db) => void db.createObjectStore(WRITES, { keyPath: 'key' }),
      terminated: () => (opened = null),
    }).then(takeFormer));
  return {
    async load() {
      const records: unknown[] = await (await database()).getAll(WRITES);
      const read = records.map((record) => writeSchema.safeParse(record));
      return {
        writes: read.flatMap((r) => (r.success ? [r.data] : [])),
        unreadable: read.filter((r) => !r.success).length,
      };
    },
    async put(write) {
      await (await database()).put(WRITES, write);
    },
    async remove(key) {
      await (await database()).delete(WRITES, key);
    },
  };
}

/**
 * Takes over what a page under the product's former name still had to send, as it is: what cannot be read too. The emptied
 * database stays: a page of then may be open and keep more in it, which is taken over when this one starts again.
 */
async function takeFormer(database: IDBPDatabase): Promise<IDBPDatabase> {
  const known = await indexedDB.databases();
  if (!known.some(({ name }) => name === FORMER_NAME)) return database;
  const former = await openDB(FORMER_NAME, 1);
  for (const record of await former.getAll(WRITES)) {
    await database.put(WRITES, record);
    await former.delete(WRITES, (record as { key: string }).key);
  }
  former.close();
  return database;
}

/** A new id: of an entity, or of a write. Later ones sort behind earlier ones (UUIDv7, RFC 9562). */
export const newId = (): string => uuid();
