import { z } from 'zod';
import { stageSchema, unitPlaceSchema } from './names.ts';
import { evidenceSchema, intakeSchema, pathSchema } from './finding.ts';
import { beepSchema } from './beep.ts';
import { ticksSchema } from './bench.ts';
import { boardsSchema } from './board.ts';
import { changeSchema, setSchema } from './change.ts';
import { netNameSchema } from './field.ts';
import { hazardSchema } from './hazard.ts';
import { betweenSchema, readingConditionSchema, readingFields, readingValueSchema } from './reading.ts';
import { photoOverlaySchema, photoPointsSchema } from './photo.ts';
import { panelsSchema } from './panel.ts';
import { settingSchema } from './setting.ts';
import { wiresSchema } from './wire.ts';
import { keptPartSchema, refSchema, sheetPartSchema } from './part-schema.ts';
import { keptReadoutSchema, modelSchema, nudgesSchema, readoutSchema } from './unit-file.ts';

/** Paths, requests and answers of /api/v1. Times are ISO 8601 in UTC. */
export const API_ROOT = '/api/v1';

/** Every write carries this header: the same key again gives the first answer again, and changes nothing. */
export const IDEMPOTENCY_HEADER = 'idempotency-key';
export const idempotencyKeySchema = z.string().min(8).max(128);

const idSchema = z.uuid();
/** The largest whole number that the record keeps. */
const LARGEST = 2_147_483_647;
const versionSchema = z
  .number()
  .int()
  .min(0)
  .max(LARGEST)
  .meta({ description: 'The version this write was based on.' });
const timeSchema = z.iso.datetime();
/** Made by the page (UUIDv7), so that a thing can be read, corrected and removed before the server has seen it. */
const ownIdSchema = idSchema.optional();
/** When it was read; now when absent. */
const takenAtSchema = timeSchema.optional();

export const partResourceSchema = z.object({
  id: idSchema,
  version: versionSchema,
  position: z.number().int(),
  part: keptPartSchema,
});
export type PartResource = z.infer<typeof partResourceSchema>;

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

export const readoutResourceSchema = z.object({
  id: idSchema,
  version: versionSchema,
  position: z.number().int(),
  readout: keptReadoutSchema,
});
export type ReadoutResource = z.infer<typeof readoutResourceSchema>;

/** A change to the circuit as the record has it. */
export const changeResourceSchema = z.object({
  id: idSchema,
  version: versionSchema,
  position: z.number().int(),
  change: changeSchema,
});
export type ChangeResource = z.infer<typeof changeResourceSchema>;

/** One test of the search, as it was seen. Never changed but for being withdrawn. */
export const evidenceResourceSchema = evidenceSchema.omit({ withdrawn: true }).extend({
  id: idSchema,
  takenAt: timeSchema,
  withdrawn: z.boolean(),
});
export type EvidenceResource = z.infer<typeof evidenceResourceSchema>;

/** A finding of a continuity test, as it was heard. Never changed but for being withdrawn, or for what it beeps through. */
export const beepResourceSchema = beepSchema.omit({ withdrawn: true }).extend({
  id: idSchema,
  takenAt: timeSchema,
  withdrawn: z.boolean(),
});
export type BeepResource = z.infer<typeof beepResourceSchema>;
export const newBeepSchema = beepSchema.omit({ withdrawn: true, through: true });
export const createBeepSchema = newBeepSchema.extend({ id: ownIdSchema, takenAt: takenAtSchema });
/** Through which part it beeps; null for none. */
export const beepThroughSchema = z.object({ through: refSchema.nullable() });

export const photoResourceSchema = z.object({
  id: idSchema,
  version: versionSchema,
  name: z.string(),
  width: z.number().int(),
  height: z.number().int(),
  points: photoPointsSchema,
  overlay: photoOverlaySchema,
});
export type PhotoResource = z.infer<typeof photoResourceSchema>;
export const updatePhotoSchema = z.object({
  baseVersion: versionSchema,
  name: z.string().trim().min(1).max(120).optional(),
  points: photoPointsSchema.optional(),
  overlay: photoOverlaySchema.optional(),
  /** Quarter turns clockwise, to be made now. */
  turn: z.number().int().min(1).max(3).optional(),
});
export type UpdatePhoto = z.infer<typeof updatePhotoSchema>;

/** A test as it is recorded, before it has an id and a time. */
export const newEvidenceSchema = evidenceSchema.omit({ withdrawn: true });
export type CreateEvidence = z.input<typeof newEvidenceSchema>;
export const createEvidenceSchema = newEvidenceSchema.extend({ id: ownIdSchema, takenAt: takenAtSchema });

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

/** Fields of a unit that are changed each by itself; each has a version of its own. */
export const UNIT_FIELDS = [
  'name',
  'kind',
  'hazards',
  'hazardNotes',
  'notes',
  'settings',
  'wires',
  'boards',
  'panels',
  'sets',
  'ground',
  'nudges',
  'models',
  'path',
  'intake',
  'place',
] as const;
export type UnitField = (typeof UNIT_FIELDS)[number];
/** Versions of a unit's fields; a field that was never changed has none. */
export const fieldVersionsSchema = z.partialRecord(z.enum(UNIT_FIELDS), versionSchema);
export type FieldVersions = z.infer<typeof fieldVersionsSchema>;

/** What a unit says of itself. */
export const unitFieldsSchema = z.object({
  name: z.string(),
  kind: z.string(),
  hazards: z.array(hazardSchema),
  stage: stageSchema,
  place: unitPlaceSchema,
  lastActivityAt: timeSchema,
  lastActivity: z.string().nullable(),
  notes: z.string(),
  /** What else can hurt, in free words. */
  hazardNotes: z.string(),
  settings: z.array(settingSchema),
  wires: wiresSchema,
  boards: boardsSchema,
  panels: panelsSchema,
  ticks: ticksSchema,
  sets: z.array(setSchema),
  ground: z.string(),
  nudges: nudgesSchema,
  models: z.array(modelSchema),
  path: pathSchema.nullable(),
  intake: intakeSchema,
  versions: fieldVersionsSchema,
});
export type UnitFields = z.infer<typeof unitFieldsSchema>;

const identitySchema = z.object({
  id: idSchema,
  number: z.number().int(),
  /** Edits that its record has had: the sequence of the last one. */
  sequence: z.number().int(),
});

export const unitSummarySchema = identitySchema
  .extend(
    unitFieldsSchema.pick({
      name: true,
      kind: true,
      hazards: true,
      stage: true,
      place: true,
      lastActivityAt: true,
      lastActivity: true,
    }).shape,
  )
  .extend({ partCount: z.number().int(), measuredCount: z.number().int() });
export type UnitSummary = z.infer<typeof unitSummarySchema>;

export const unitResourceSchema = identitySchema.extend(unitFieldsSchema.shape).extend({
  evidence: z.array(evidenceResourceSchema),
  photos: z.array(photoResourceSchema),
  parts: z.array(partResourceSchema),
  readings: z.array(readingResourceSchema),
  readouts: z.array(readoutResourceSchema),
  changes: z.array(changeResourceSchema),
  beeps: z.array(beepResourceSchema),
  log: z.array(logEntrySchema),
});
export type UnitResource = z.infer<typeof unitResourceSchema>;

export const unitListSchema = z.object({ units: z.array(unitSummarySchema) });

const nameSchema = z.string().trim().min(1, 'a unit needs a name').max(120);

/** How often each kind of block was the culprit, over all units of this workshop. */
export const repairHistorySchema = z.object({ kinds: z.record(z.string(), z.number().int()) });
export type RepairHistory = z.infer<typeof repairHistorySchema>;

export const createUnitSchema = z.object({
  id: ownIdSchema,
  name: nameSchema,
  kind: z.string().trim().max(80).default(''),
  hazards: z.array(hazardSchema).max(20).default([]),
  notes: z.string().max(20000).default(''),
  hazardNotes: z.string().max(2000).default(''),
});

/** The text of a unit file as it was chosen; it is read and checked by the server. */
export const importUnitSchema = z.object({
  id: ownIdSchema,
  text: z.string(),
  fileName: z.string().max(255).optional(),
});

export const updateUnitSchema = z.object({
  /** Versions of the fields that are changed, as they were seen; a field without one is changed whatever it was. */
  seen: fieldVersionsSchema.default({}),
  name: nameSchema.optional(),
  kind: z.string().trim().max(80).optional(),
  hazards: z.array(hazardSchema).max(20).optional(),
  notes: z.string().max(20000).optional(),
  hazardNotes: z.string().max(2000).optional(),
  settings: z.array(settingSchema).max(200).optional(),
  wires: wiresSchema.optional(),
  boards: boardsSchema.optional(),
  panels: panelsSchema.optional(),
  sets: z.array(setSchema).max(50).optional(),
  stage: stageSchema.optional(),
  place: unitPlaceSchema.optional(),
  ground: netNameSchema.optional(),
  nudges: nudgesSchema.optional(),
  models: z.array(modelSchema).max(200).optional(),
  path: pathSchema.nullable().optional(),
  intake: intakeSchema.optional(),
  /** Why a unit is put away although something temporary is still in force. */
  reason: z.string().trim().max(500).optional(),
});
export type UpdateUnit = z.infer<typeof updateUnitSchema>;

export const createPartSchema = z.object({
  id: ownIdSchema,
  part: sheetPartSchema,
  /** Insert before this position; at the end when absent. */
  position: z.number().int().min(0).max(100_000).optional(),
});
export const updatePartSchema = z.object({ baseVersion: versionSchema, part: sheetPartSchema });
export const removeSchema = z.object({ baseVersion: versionSchema });

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

export const createReadoutSchema = z.object({ id: ownIdSchema, readout: readoutSchema });
export const updateReadoutSchema = z.object({ baseVersion: versionSchema, readout: readoutSchema });

export const createChangeSchema = z.object({ id: ownIdSchema, change: changeSchema });
export type CreateChange = z.output<typeof createChangeSchema>;
export const updateChangeSchema = z.object({ baseVersion: versionSchema, change: changeSchema });
export type UpdateChange = z.output<typeof updateChangeSchema>;

export const createNoteSchema = z.object({
  id: ownIdSchema,
  text: z.string().trim().min(1, 'a note needs words').max(5000),
});

/** The step to take back, by its sequence in the log. */
export const undoSchema = z.object({ sequence: z.number().int().min(1).max(LARGEST) });
