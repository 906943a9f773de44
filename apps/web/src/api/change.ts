import {
  amendReadingSchema,
  betweenSchema,
  changeSchema as circuitChangeSchema,
  createUnitSchema,
  fieldVersionsSchema,
  newBeepSchema,
  newEvidenceSchema,
  photoOverlaySchema,
  photoPointsSchema,
  problemDocumentSchema,
  readingConditionSchema,
  readingValueSchema,
  readoutSchema,
  sheetPartSchema,
  tickSchema,
  UNIT_FIELDS,
  updateUnitSchema,
  type UnitField,
  type UnitResource,
} from '@zemble/contract';
import { z } from 'zod';

const id = z.uuid();
/** Version of the thing as it was seen, this browser's own changes that are on their way included. */
const seen = z.number().int().min(0);
const takenAt = z.iso.datetime();

/** A change of a unit, as data: it can be kept while the server is away, and shown before the server has it. */
export const changeSchema = z.discriminatedUnion('type', [
  /** A new unit, under the id of the write's unit. */
  z.object({ type: z.literal('create-unit'), values: createUnitSchema.omit({ id: true }), at: takenAt }),
  z.object({
    type: z.literal('add-part'),
    id,
    part: sheetPartSchema,
    position: z.number().int().min(0).optional(),
  }),
  z.object({ type: z.literal('update-part'), partId: id, seen, part: sheetPartSchema }),
  z.object({ type: z.literal('remove-part'), partId: id, seen }),
  z.object({
    type: z.literal('add-reading'),
    id,
    partId: id.optional(),
    readoutId: id.optional(),
    changeId: id.optional(),
    ref: z.string().optional(),
    seen,
    value: readingValueSchema,
    condition: readingConditionSchema,
    instrument: z.string().optional(),
    esr: z.number().optional(),
    aspect: z.string().optional(),
    red: z.string().optional(),
    isAsDrawn: z.boolean().optional(),
    between: betweenSchema.optional(),
    takenAt,
  }),
  z.object({ type: z.literal('amend-reading'), readingId: id, told: amendReadingSchema }),
  z.object({ type: z.literal('add-readout'), id, readout: readoutSchema }),
  z.object({ type: z.literal('update-readout'), readoutId: id, seen, readout: readoutSchema }),
  z.object({ type: z.literal('remove-readout'), readoutId: id, seen }),
  /** A change to the circuit, planned or done. */
  z.object({ type: z.literal('add-change'), id, change: circuitChangeSchema }),
  z.object({ type: z.literal('update-change'), changeId: id, seen, change: circuitChangeSchema }),
  z.object({ type: z.literal('add-evidence'), id, evidence: newEvidenceSchema, takenAt }),
  z.object({ type: z.literal('withdraw-evidence'), evidenceId: id }),
  z.object({ type: z.literal('add-beep'), id, beep: newBeepSchema, takenAt }),
  z.object({ type: z.literal('withdraw-beep'), beepId: id }),
  z.object({ type: z.literal('beep-through'), beepId: id, through: z.string().nullable() }),
  /** A step of the bench work that belongs to no change. */
  tickSchema.extend({ type: z.literal('tick-step') }),
  z.object({
    type: z.literal('update-photo'),
    photoId: id,
    seen,
    values: z.object({
      name: z.string().optional(),
      points: photoPointsSchema.optional(),
      overlay: photoOverlaySchema.optional(),
      turn: z.number().int().optional(),
    }),
  }),
  z.object({ type: z.literal('remove-photo'), photoId: id, seen }),
  z.object({ type: z.literal('add-note'), id, text: z.string().min(1) }),
  z.object({
    type: z.literal('update-unit'),
    seen: fieldVersionsSchema,
    values: updateUnitSchema.omit({ seen: true }),
  }),
  z.object({ type: z.literal('undo'), sequence: z.number().int() }),
]);
export type Change = z.infer<typeof changeSchema>;

/** A change on its way to the server; parked when the server has refused it for good. */
export const writeSchema = z.object({
  /** Idempotency key, and the order in which they were made (UUIDv7). */
  key: z.uuid(),
  unitId: id,
  change: changeSchema,
  refusal: problemDocumentSchema.optional(),
});
export type Write = z.infer<typeof writeSchema>;

/** A change of fields of a unit, on top of the versions that they have. */
export function unitChange(
  { versions }: Pick<UnitResource, 'versions'>,
  values: Extract<Change, { type: 'update-unit' }>['values'],
): Change {
  const isField = (name: string): name is UnitField => UNIT_FIELDS.some((field) => field === name);
  const fields = Object.keys(values).filter(isField);
  return {
    type: 'update-unit',
    seen: Object.fromEntries(fields.map((field) => [field, versions[field] ?? 0])),
    values,
  };
}
