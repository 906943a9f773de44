import { z } from 'zod';
import { act, idSchema, LARGEST_NUMBER, ownIdSchema, timeSchema } from './act.ts';
import { row } from './row.ts';

export const logEntrySchema = z.object({
  id: idSchema,
  sequence: z.number().int(),
  at: timeSchema,
  kind: z.string(),
  summary: z.string(),
  undone: z.boolean(),
  undoable: z.boolean(),
  /** Who did it; null where people have no names, and for what the bench did by itself. */
  by: z.string().nullable(),
});
export type LogEntry = z.infer<typeof logEntrySchema>;

/** Longest words of a step; longer ones are cut when it is written. */
export const LONGEST_SUMMARY = 5000;
export const MOST_LOG = 100_000;
export const logRow = row({
  of: 'log',
  list: 'log',
  words: ['step of the log', 'steps of the log'],
  schema: logEntrySchema,
  most: MOST_LOG,
  order: 'newest',
  goes: 'never',
});

export const createNoteSchema = z.object({
  id: ownIdSchema,
  text: z.string().trim().min(1, 'a note needs words').max(5000),
});
/** The step to take back, by its sequence in the log. */
export const undoSchema = z.object({ sequence: z.number().int().min(1).max(LARGEST_NUMBER) });

export const logActs = {
  'add-note': act({
    schema: z.object({ type: z.literal('add-note'), id: idSchema, text: z.string().min(1) }),
    route: { method: 'POST', path: '/notes', status: 201, summary: 'Add a note' },
    body: createNoteSchema,
    toBody: ({ id, text }) => ({ id, text }),
  }),
  undo: act({
    schema: z.object({ type: z.literal('undo'), sequence: z.number().int() }),
    route: { method: 'POST', path: '/undo', status: 200, summary: 'Take back a step' },
    body: undoSchema,
    toBody: ({ sequence }) => ({ sequence }),
  }),
} as const;
