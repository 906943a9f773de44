import { z } from 'zod';
import { beepSchema } from '../beep.ts';
import { refSchema } from '../part-schema.ts';
import { act, idSchema, ownIdSchema, takenAtSchema, timeSchema } from './act.ts';
import { row } from './row.ts';

/** A finding of a continuity test, as it was heard. Never changed but for being withdrawn, or for what it beeps through. */
export const beepResourceSchema = beepSchema.omit({ withdrawn: true }).extend({
  id: idSchema,
  takenAt: timeSchema,
  withdrawn: z.boolean(),
});
export type BeepResource = z.infer<typeof beepResourceSchema>;

export const MOST_BEEPS = 5000;
export const beepRow = row({
  of: 'beep',
  list: 'beeps',
  words: ['beep', 'beeps'],
  schema: beepResourceSchema,
  most: MOST_BEEPS,
  order: 'time',
  goes: 'withdrawn',
});

export const newBeepSchema = beepSchema.omit({ withdrawn: true, through: true });
export const createBeepSchema = newBeepSchema.extend({ id: ownIdSchema, takenAt: takenAtSchema });
/** Through which part it beeps; null for none. */
export const beepThroughSchema = z.object({ through: refSchema.nullable() });

export const beepActs = {
  'add-beep': act({
    schema: z.object({ type: z.literal('add-beep'), id: idSchema, beep: newBeepSchema, takenAt: timeSchema }),
    route: {
      method: 'POST',
      path: '/beeps',
      status: 201,
      summary: 'Record what beeped with what; the nets of the parts follow from it',
    },
    body: createBeepSchema,
    toBody: ({ beep, id, takenAt }) => ({ ...beep, id, takenAt }),
  }),
  'withdraw-beep': act({
    schema: z.object({ type: z.literal('withdraw-beep'), beepId: idSchema }),
    route: {
      method: 'POST',
      path: '/beeps/:beepId/withdraw',
      status: 200,
      summary: 'Withdraw a beep: it stays in the history, and the nets are as they were without it',
    },
    body: z.object({}),
    toBody: () => ({}),
  }),
  'beep-through': act({
    schema: z.object({ type: z.literal('beep-through'), beepId: idSchema, through: z.string().nullable() }),
    route: {
      method: 'POST',
      path: '/beeps/:beepId/through',
      status: 200,
      summary: 'Say through which part of low resistance it beeped, or that it was through none',
    },
    body: beepThroughSchema,
    toBody: ({ through }) => ({ through }),
  }),
} as const;
