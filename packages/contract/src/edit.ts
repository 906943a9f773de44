import { z } from 'zod';
import {
  beepResourceSchema,
  changeResourceSchema,
  evidenceResourceSchema,
  logEntrySchema,
  partResourceSchema,
  photoResourceSchema,
  readingResourceSchema,
  readoutResourceSchema,
  unitFieldsSchema,
} from './api.ts';

/** What an edit does to the record of a unit: an entity as it is now, one that is gone, or fields of the unit itself. */
export const effectSchema = z.discriminatedUnion('of', [
  z.object({
    of: z.literal('part'),
    value: partResourceSchema,
    /** It was put in: those that stand at its place and after it move on by one. */
    isNew: z.boolean().optional(),
  }),
  z.object({ of: z.literal('reading'), value: readingResourceSchema }),
  z.object({ of: z.literal('readout'), value: readoutResourceSchema }),
  z.object({ of: z.literal('change'), value: changeResourceSchema }),
  z.object({ of: z.literal('evidence'), value: evidenceResourceSchema }),
  z.object({ of: z.literal('beep'), value: beepResourceSchema }),
  z.object({ of: z.literal('photo'), value: photoResourceSchema }),
  z.object({ of: z.literal('log'), value: logEntrySchema }),
  z.object({ of: z.literal('unit'), value: unitFieldsSchema.partial() }),
  z.object({
    of: z.literal('gone'),
    entity: z.enum(['part', 'readout', 'change', 'photo']),
    id: z.uuid(),
  }),
]);
export type Effect = z.infer<typeof effectSchema>;

/** One act of a person on the record of a unit, as it was carried out. Those of a unit follow one another by `sequence`. */
export const editSchema = z.object({
  unitId: z.uuid(),
  sequence: z.number().int().min(1),
  /** The key that the page gave it; null for what the server did by itself. */
  key: z.string().nullable(),
  effects: z.array(effectSchema),
});
export type Edit = z.infer<typeof editSchema>;

/** What every write answers: what it did, and where the unit's record stands after it. */
export const writeAnswerSchema = z.object({
  unitId: z.uuid(),
  sequence: z.number().int().min(0),
  edits: z.array(editSchema),
});
export type WriteAnswer = z.infer<typeof writeAnswerSchema>;

/** An event of a stream: edits that follow one another, or that the unit has to be fetched anew. */
export const streamEventSchema = z.union([
  z.object({ unitId: z.uuid(), edits: z.array(editSchema).min(1) }),
  z.object({ unitId: z.uuid(), reload: z.literal(true), sequence: z.number().int() }),
]);
export type StreamEvent = z.infer<typeof streamEventSchema>;
