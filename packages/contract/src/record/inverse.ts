import { z } from 'zod';
import { ROW_KINDS, type RowOf } from './registry.ts';
import { thingsSchema } from './things.ts';

const ofSchema = z.enum(ROW_KINDS.map(({ of }) => of));
const valuesSchema = z.record(z.string(), z.unknown());

/** What has to be done to take a step back. */
export const inverseSchema = z.discriminatedUnion('op', [
  z.object({ op: z.literal('set'), of: ofSchema, id: z.string(), values: valuesSchema }),
  z.object({ op: z.literal('set-removed'), of: ofSchema, id: z.string(), removed: z.boolean() }),
  z.object({ op: z.literal('withdraw'), of: ofSchema, id: z.string(), withdrawn: z.boolean() }),
  /** Quarter turns clockwise that bring a picture back. */
  z.object({ op: z.literal('turn-photo'), id: z.string(), turn: z.number().int() }),
  /** A step of a change is ticked as it was before; null for not at all. */
  z.object({
    op: z.literal('tick'),
    id: z.string(),
    step: z.number().int().min(0),
    done: z.looseObject({ at: z.string() }).nullable(),
  }),
  z.object({ op: z.literal('set-unit'), values: valuesSchema }),
  z.object({ op: z.literal('put-things'), things: thingsSchema }),
]);
export type Inverse = z.infer<typeof inverseSchema>;

/** Inverses as steps of an older record have them: the kind of row was part of the word. */
const OLDER = /^(set|withdraw)-([a-z]+?)(-removed)?$/;

/** An inverse as the record has it, those of older steps too; null for one that this version cannot carry out. */
export function readInverse(written: unknown): Inverse | null {
  const read = inverseSchema.safeParse(written);
  if (read.success) return read.data;
  const older = z.looseObject({ op: z.string() }).safeParse(written);
  const [, act, of, removed] = (older.success && OLDER.exec(older.data.op)) || [];
  if (!older.success || act === undefined || !ROW_KINDS.some((kind) => kind.of === (of as RowOf)))
    return null;
  const op = act === 'withdraw' ? 'withdraw' : removed === undefined ? 'set' : 'set-removed';
  // Steps of the oldest records do not say it: they were all of things that were put in.
  const again = inverseSchema.safeParse({ withdrawn: true, ...older.data, op, of });
  return again.success ? again.data : null;
}
