import { z } from 'zod';
import { effectSchema } from './record/registry.ts';

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
