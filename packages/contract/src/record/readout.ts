import { z } from 'zod';
import { keptReadoutSchema, readoutSchema } from '../readout-schema.ts';
import { act, idSchema, ownIdSchema, removeSchema, seenSchema, versionSchema } from './act.ts';
import { row } from './row.ts';

export const readoutResourceSchema = z.object({
  id: idSchema,
  version: versionSchema,
  position: z.number().int(),
  readout: keptReadoutSchema,
});
export type ReadoutResource = z.infer<typeof readoutResourceSchema>;

export const MOST_READOUTS = 200;
export const readoutRow = row({
  of: 'readout',
  list: 'readouts',
  words: ['readout', 'readouts'],
  schema: readoutResourceSchema,
  most: MOST_READOUTS,
  order: 'position',
  goes: 'removed',
  nameOf: ({ readout }) => readout.id,
});

export const createReadoutSchema = z.object({ id: ownIdSchema, readout: readoutSchema });
export const updateReadoutSchema = z.object({ baseVersion: versionSchema, readout: readoutSchema });

export const readoutActs = {
  'add-readout': act({
    schema: z.object({ type: z.literal('add-readout'), id: idSchema, readout: readoutSchema }),
    route: { method: 'POST', path: '/readouts', status: 201, summary: 'Add a readout' },
    body: createReadoutSchema,
    toBody: ({ id, readout }) => ({ id, readout }),
  }),
  'update-readout': act({
    schema: z.object({
      type: z.literal('update-readout'),
      readoutId: idSchema,
      seen: seenSchema,
      readout: readoutSchema,
    }),
    route: { method: 'PUT', path: '/readouts/:readoutId', status: 200, summary: 'Enter a readout anew' },
    body: updateReadoutSchema,
    toBody: ({ seen, readout }) => ({ baseVersion: seen, readout }),
  }),
  'remove-readout': act({
    schema: z.object({ type: z.literal('remove-readout'), readoutId: idSchema, seen: seenSchema }),
    route: { method: 'POST', path: '/readouts/:readoutId/remove', status: 200, summary: 'Remove a readout' },
    body: removeSchema,
    toBody: ({ seen }) => ({ baseVersion: seen }),
  }),
} as const;
