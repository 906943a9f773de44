import { FORMER_NAME } from '@zemble/contract';
import { openDB, type IDBPDatabase } from 'idb';
import { writeSchema, type Write } from './act.ts';

/** Where entries are kept until the server has them: one record each, shared by all pages of this browser. */
export interface OutboxStore {
  /** All that is kept, in the order in which it was entered, and the records that this version cannot read. */
  load(): Promise<{ readonly writes: readonly Write[]; readonly unreadable: readonly unknown[] }>;
  /** Keeps a write; one that is new gets its place behind all others. Answers it with its place. */
  put(write: Write): Promise<Write>;
  remove(key: string): Promise<void>;
}

const DATABASE = 'zemble';
const WRITES = 'writes';
/** How many entries there have been: no clock says their order, since clocks go back. */
const COUNTER = 'counter';
const VERSION = 2;

/** What an older page kept had no place: it goes before, by the time in its key. */
export const inOrder = (a: Write, b: Write): number =>
  (a.order ?? 0) - (b.order ?? 0) || (a.key < b.key ? -1 : a.key > b.key ? 1 : 0);

/** The store of this browser (IndexedDB). Its promises are rejected where the browser keeps nothing, or its disk is full. */
export function browserStore(): OutboxStore {
  let opened: Promise<IDBPDatabase> | null = null;
  const database = () =>
    (opened ??= openDB(DATABASE, VERSION, {
      upgrade(db, before) {
        if (before < 1) db.createObjectStore(WRITES, { keyPath: 'key' });
        if (before < 2) db.createObjectStore(COUNTER);
      },
      terminated: () => (opened = null),
      // A page of a newer version wants to open it: this one closes, and opens it again when it needs it.
      blocking: (_before, _now, event) => {
        (event.target as IDBDatabase).close();
        opened = null;
      },
    }).then(takeFormer));
  return {
    async load() {
      const records: unknown[] = await (await database()).getAll(WRITES);
      const read = records.map((record) => ({ record, write: writeSchema.safeParse(record) }));
      return {
        writes: read.flatMap(({ write }) => (write.success ? [write.data] : [])).sort(inOrder),
        unreadable: read.flatMap(({ write, record }) => (write.success ? [] : [record])),
      };
    },
    async put(write) {
      const writing = (await database()).transaction([WRITES, COUNTER], 'readwrite');
      const counter = writing.objectStore(COUNTER);
      const order = write.order ?? Number((await counter.get(COUNTER)) ?? 0) + 1;
      const placed = { ...write, order };
      if (write.order === undefined) await counter.put(order, COUNTER);
      await writing.objectStore(WRITES).put(placed);
      await writing.done;
      return placed;
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
