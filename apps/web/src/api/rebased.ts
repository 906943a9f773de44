import { isSameThing } from '@zemble/core';
import type { Entry } from './act.ts';

/** What the server says that a thing is now, where an entry came too late. */
interface Current {
  readonly id?: string;
  readonly version?: number;
  readonly versions?: Partial<Record<string, number>>;
  /** Of a thing inside a field: where it is, and what it is now. */
  readonly at?: readonly string[];
  readonly value?: unknown;
}

/** The same entry on top of what is there now: what "use mine" sends after a conflict. */
export function rebased(entry: Entry, current: Current): Entry {
  const { version, at, value } = current;
  switch (entry.type) {
    case 'batch':
      return { ...entry, acts: entry.acts.map((act) => rebased(act, current) as typeof act) };
    case 'update-unit':
      return { ...entry, seen: { ...entry.seen, ...current.versions } };
    case 'put-things':
      return {
        ...entry,
        things: entry.things.map((thing) =>
          at && thing.at.length === at.length && isSameThing(thing, { ...thing, at: [...at] })
            ? { ...thing, was: value as typeof thing.was }
            : thing,
        ),
      };
    default:
      return 'seen' in entry && version !== undefined && isOf(entry, current)
        ? { ...entry, seen: version }
        : entry;
  }
}

/** Parameters by which an act names the thing that it is of. */
const NAMES = ['partId', 'readoutId', 'changeId', 'photoId'] as const;

/** Whether an act is of the thing that is another now: of several that are one thought, only those that touch it. */
function isOf(entry: Entry, { id }: Current): boolean {
  const named = NAMES.flatMap((name) => (name in entry ? [Reflect.get(entry, name) as unknown] : []));
  return id === undefined || named.length === 0 || named.includes(id);
}
