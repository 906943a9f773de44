import { z } from 'zod';
import { hazardSchema } from '../hazard.ts';
import { stageSchema } from '../names.ts';
import { act, idSchema, ownIdSchema, timeSchema, versionSchema } from './act.ts';
import { thingsSchema } from './things.ts';
import {
  LIMITS,
  nameSchema,
  TICKS_FIELD,
  unitFieldSchemas,
  UNIT_FIELDS,
  type UnitField,
} from './unit-fields.ts';

/** Versions of a unit's fields; a field that was never changed has none. */
export const fieldVersionsSchema = z.partialRecord(
  z.enum(UNIT_FIELDS as readonly [UnitField, ...UnitField[]]),
  versionSchema,
);
export type FieldVersions = z.infer<typeof fieldVersionsSchema>;

/** What a unit says of itself. */
export const unitFieldsSchema = z.object({
  ...unitFieldSchemas,
  ticks: TICKS_FIELD.schema,
  stage: stageSchema,
  lastActivityAt: timeSchema,
  lastActivity: z.string().nullable(),
  versions: fieldVersionsSchema,
});
export type UnitFields = z.infer<typeof unitFieldsSchema>;

export const createUnitSchema = z.object({
  id: ownIdSchema,
  name: nameSchema,
  kind: unitFieldSchemas.kind.default(''),
  hazards: z.array(hazardSchema).max(LIMITS.hazards).default([]),
  notes: unitFieldSchemas.notes.default(''),
  hazardNotes: unitFieldSchemas.hazardNotes.default(''),
  intake: unitFieldSchemas.intake.default({}),
});

export const updateUnitSchema = z
  .object(unitFieldSchemas)
  .partial()
  .extend({
    /** Versions of the fields that are changed, as they were seen; a field without one is changed whatever it was. */
    seen: fieldVersionsSchema.default({}),
    stage: stageSchema.optional(),
    /** Why a unit is put away although something temporary is still in force. */
    reason: z.string().trim().max(500).optional(),
  });
export type UpdateUnit = z.infer<typeof updateUnitSchema>;

/** Things of a unit's fields, put and removed one by one. */
export const putThingsSchema = z.object({
  things: thingsSchema,
  /** What was done, for the log; words of its own where it is absent. */
  words: z.string().trim().min(1).max(500).optional(),
});

export const unitActs = {
  'update-unit': act({
    schema: z.object({
      type: z.literal('update-unit'),
      seen: fieldVersionsSchema,
      values: updateUnitSchema.omit({ seen: true }),
    }),
    route: { method: 'PATCH', path: '', status: 200, summary: 'Change what is said of a unit' },
    body: updateUnitSchema,
    toBody: ({ seen, values }) => ({ seen, ...values }),
  }),
  'put-things': act({
    schema: z.object({ type: z.literal('put-things') }).extend(putThingsSchema.shape),
    route: {
      method: 'POST',
      path: '/things',
      status: 200,
      summary: 'Put or remove things of its fields one by one: parts of a board, wires, controls, blocks',
    },
    body: putThingsSchema,
    toBody: ({ type: _type, ...body }) => body,
  }),
} as const;

export const identitySchema = z.object({
  id: idSchema,
  number: z.number().int(),
  /** Edits that its record has had: the sequence of the last one. */
  sequence: z.number().int(),
});
