import { z } from 'zod';
import { keptPartSchema, sheetPartSchema } from '../part-schema.ts';
import { act, idSchema, ownIdSchema, removeSchema, seenSchema, versionSchema } from './act.ts';
import { row } from './row.ts';

export const partResourceSchema = z.object({
  id: idSchema,
  version: versionSchema,
  position: z.number().int(),
  part: keptPartSchema,
});
export type PartResource = z.infer<typeof partResourceSchema>;

export const MOST_PARTS = 2000;
export const partRow = row({
  of: 'part',
  list: 'parts',
  words: ['part', 'parts'],
  schema: partResourceSchema,
  most: MOST_PARTS,
  order: 'position',
  goes: 'removed',
  nameOf: ({ part }) => part.ref,
});

export const createPartSchema = z.object({
  id: ownIdSchema,
  part: sheetPartSchema,
  /** Insert before this position; at the end when absent. */
  position: z.number().int().min(0).max(100_000).optional(),
});
export const updatePartSchema = z.object({ baseVersion: versionSchema, part: sheetPartSchema });

export const partActs = {
  'add-part': act({
    schema: z.object({
      type: z.literal('add-part'),
      id: idSchema,
      part: sheetPartSchema,
      position: z.number().int().min(0).optional(),
    }),
    route: { method: 'POST', path: '/parts', status: 201, summary: 'Add a part' },
    body: createPartSchema,
    toBody: ({ id, part, position }) => ({ id, part, ...(position === undefined ? {} : { position }) }),
  }),
  'update-part': act({
    schema: z.object({
      type: z.literal('update-part'),
      partId: idSchema,
      seen: seenSchema,
      part: sheetPartSchema,
    }),
    route: { method: 'PUT', path: '/parts/:partId', status: 200, summary: 'Enter a part anew' },
    body: updatePartSchema,
    toBody: ({ seen, part }) => ({ baseVersion: seen, part }),
  }),
  'remove-part': act({
    schema: z.object({ type: z.literal('remove-part'), partId: idSchema, seen: seenSchema }),
    route: { method: 'POST', path: '/parts/:partId/remove', status: 200, summary: 'Remove a part' },
    body: removeSchema,
    toBody: ({ seen }) => ({ baseVersion: seen }),
  }),
} as const;
