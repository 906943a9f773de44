import { z } from 'zod';

/**
 * What is inside a field of a unit, so that one thing of it travels and not all: a list whose members are told apart by a key, a
 * record by its names, an object by its fields. What has no shape is one thing.
 */
export type Shape =
  | { readonly is: 'list'; readonly key: (member: never) => string; readonly of?: Shape }
  | { readonly is: 'record'; readonly of?: Shape }
  | { readonly is: 'fields'; readonly of: Readonly<Record<string, Shape>> };

/** A list whose members have a key of their own. */
export const listBy = <Member>(key: (member: Member) => string, of?: Shape): Shape => ({
  is: 'list',
  key: key as (member: never) => string,
  ...(of ? { of } : {}),
});
export const record = (of?: Shape): Shape => ({ is: 'record', ...(of ? { of } : {}) });
/** An object: each of its fields is a thing by itself, those that are named with things of their own. */
export const fields = (of: Readonly<Record<string, Shape>> = {}): Shape => ({ is: 'fields', of });
/** A list of things that have an id. */
export const listById = (of?: Shape): Shape => listBy<{ readonly id: string }>(({ id }) => id, of);

/** One thing of a field: where it is, what was there, and what is there now; null where there was, or is, nothing. */
export const thingSchema = z.object({
  /** The field, and the keys that lead to the thing. */
  at: z.array(z.string().max(400)).min(1).max(8),
  was: z.json(),
  now: z.json(),
  /** Before which member of its list it stands; at the end where that is not there. */
  before: z.string().max(400).optional(),
});
export type Thing = z.infer<typeof thingSchema>;
/** The most things that one act puts. */
export const MOST_THINGS = 20_000;
export const thingsSchema = z.array(thingSchema).min(1).max(MOST_THINGS);
