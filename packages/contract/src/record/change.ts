import { z } from 'zod';
import { changeSchema } from '../change.ts';
import { act, idSchema, ownIdSchema, seenSchema, versionSchema } from './act.ts';
import { row } from './row.ts';

/** A change to the circuit as the record has it. */
export const changeResourceSchema = z.object({
  id: idSchema,
  version: versionSchema,
  position: z.number().int(),
  change: changeSchema,
});
export type ChangeResource = z.infer<typeof changeResourceSchema>;

export const MOST_CHANGES = 500;
export const changeRow = row({
  of: 'change',
  list: 'changes',
  words: ['change', 'changes'],
  schema: changeResourceSchema,
  most: MOST_CHANGES,
  order: 'position',
  goes: 'removed',
  nameOf: ({ change }) => change.id,
});

export const createChangeSchema = z.object({ id: ownIdSchema, change: changeSchema });
export type CreateChange = z.output<typeof createChangeSchema>;
export const updateChangeSchema = z.object({ baseVersion: versionSchema, change: changeSchema });
export type UpdateChange = z.output<typeof updateChangeSchema>;

export const changeActs = {
  'add-change': act({
    schema: z.object({ type: z.literal('add-change'), id: idSchema, change: changeSchema }),
    route: {
      method: 'POST',
      path: '/changes',
      status: 201,
      summary: 'Add a change to the circuit: planned, or done already',
    },
    body: createChangeSchema,
    toBody: ({ id, change }) => ({ id, change }),
  }),
  'update-change': act({
    schema: z.object({
      type: z.literal('update-change'),
      changeId: idSchema,
      seen: seenSchema,
      change: changeSchema,
    }),
    route: {
      method: 'PUT',
      path: '/changes/:changeId',
      status: 200,
      summary: 'Change a change: its steps, its set, or where it stands',
    },
    body: updateChangeSchema,
    toBody: ({ seen, change }) => ({ baseVersion: seen, change }),
  }),
} as const;
