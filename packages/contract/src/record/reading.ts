import { z } from 'zod';
import { betweenSchema, readingConditionSchema, readingFields, readingValueSchema } from '../reading.ts';
import { act, idSchema, ownIdSchema, seenSchema, takenAtSchema, timeSchema, versionSchema } from './act.ts';
import { row } from './row.ts';

export const readingResourceSchema = z.object({
  id: idSchema,
  partId: idSchema.nullable(),
  readoutId: idSchema.nullable(),
  /** The change that put in what was read: a fit of that part, or one that added `ref`. */
  changeId: idSchema.nullable(),
  /** Designator of a part that the change added. */
  ref: z.string().nullable(),
  value: readingValueSchema,
  condition: readingConditionSchema,
  instrument: z.string().nullable(),
  esr: z.number().nullable(),
  aspect: z.string().nullable(),
  red: z.string().nullable(),
  isAsDrawn: z.boolean(),
  between: betweenSchema.nullable(),
  takenAt: timeSchema,
  withdrawn: z.boolean(),
});
export type ReadingResource = z.infer<typeof readingResourceSchema>;

export const MOST_READINGS = 100_000;
export const readingRow = row({
  of: 'reading',
  list: 'readings',
  words: ['reading', 'readings'],
  schema: readingResourceSchema,
  most: MOST_READINGS,
  order: 'time',
  goes: 'withdrawn',
});

export const createReadingSchema = z
  .object({
    id: ownIdSchema,
    takenAt: takenAtSchema,
    baseVersion: versionSchema,
    partId: idSchema.optional(),
    readoutId: idSchema.optional(),
    changeId: idSchema.optional(),
    ref: z.string().trim().min(1).max(32).optional(),
    value: readingValueSchema,
    condition: readingConditionSchema.default('leg lifted'),
    instrument: readingFields.instrument.optional(),
    esr: readingFields.esr.optional(),
    aspect: readingFields.aspect.optional(),
    red: readingFields.red.optional(),
    isAsDrawn: readingFields.isAsDrawn.default(false),
    between: readingFields.between.optional(),
  })
  .refine((r) => [r.partId, r.readoutId, r.ref].filter((of) => of !== undefined).length === 1, {
    message: 'a reading is of one part or of one readout',
  })
  .refine((r) => r.ref === undefined || r.changeId !== undefined, {
    message: 'a reading of a part that a change added says by which change',
  })
  .refine((r) => (r.between !== undefined) === (r.condition === 'from a change'), {
    message: 'a reading from a change says between what it lies, and no other does',
  });

/** What was not known when it was read: which pin had the red lead, that all controls stood as drawn. */
export const amendReadingSchema = z
  .object({ red: readingFields.red.optional(), isAsDrawn: readingFields.isAsDrawn.optional() })
  .refine((r) => r.red !== undefined || r.isAsDrawn !== undefined, { message: 'nothing is amended' });
export type AmendReading = z.infer<typeof amendReadingSchema>;

export const readingActs = {
  'add-reading': act({
    schema: z.object({
      type: z.literal('add-reading'),
      id: idSchema,
      partId: idSchema.optional(),
      readoutId: idSchema.optional(),
      changeId: idSchema.optional(),
      ref: z.string().optional(),
      seen: seenSchema,
      value: readingValueSchema,
      condition: readingConditionSchema,
      instrument: z.string().optional(),
      esr: z.number().optional(),
      aspect: z.string().optional(),
      red: z.string().optional(),
      isAsDrawn: z.boolean().optional(),
      between: betweenSchema.optional(),
      takenAt: timeSchema,
    }),
    route: {
      method: 'POST',
      path: '/readings',
      status: 201,
      summary: 'Add a reading of a part or a readout',
    },
    body: createReadingSchema,
    toBody: ({ type: _type, seen, ...reading }) => ({ baseVersion: seen, ...reading }),
  }),
  'amend-reading': act({
    schema: z.object({ type: z.literal('amend-reading'), readingId: idSchema, told: amendReadingSchema }),
    route: {
      method: 'PATCH',
      path: '/readings/:readingId',
      status: 200,
      summary: 'Tell how a part was read: which pin had the red lead, that the controls stood as drawn',
    },
    body: amendReadingSchema,
    toBody: ({ told }) => told,
  }),
} as const;
