import { z } from 'zod';
import { writeSchema, type Write } from './act.ts';
import type { OutboxStore } from './outbox-store.ts';

/** Where a page of before kept what it still had to send, as one text. */
const OLDER_KEY = 'zemble.outbox';

const olderSchema = z.array(z.looseObject({ change: z.looseObject({ tempId: z.string().optional() }) }));

/** What a page of before had still to send, as it is written now; what cannot be read is counted. */
export function olderWrites(text: string): {
  readonly writes: readonly Write[];
  readonly unreadable: number;
} {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    return { writes: [], unreadable: 1 };
  }
  const older = olderSchema.safeParse(json);
  if (!older.success) return { writes: [], unreadable: 1 };
  const read = older.data.map(({ change: { tempId, ...change }, ...write }) =>
    writeSchema.safeParse({
      ...write,
      change: {
        ...change,
        // Made by the page then as well, but told to nobody.
        ...(tempId === undefined ? {} : { id: tempId }),
        ...(change.type === 'update-unit' ? { seen: {} } : {}),
        ...(change.type === 'add-note' ? { id: write.key } : {}),
      },
    }),
  );
  return {
    writes: read.flatMap((r) => (r.success ? [r.data] : [])),
    unreadable: read.filter((r) => !r.success).length,
  };
}

/** Moves what a page of before kept into the store of now. What cannot be read stays where it is. */
export async function moveOlder(store: OutboxStore): Promise<void> {
  const text = localStorage.getItem(OLDER_KEY);
  if (text === null) return;
  const { writes, unreadable } = olderWrites(text);
  for (const write of writes) await store.put(write);
  if (unreadable === 0) localStorage.removeItem(OLDER_KEY);
}
