import { z } from 'zod';
import { beepSchema } from './beep.ts';
import { benchSchema } from './bench.ts';
import { changeSchema } from './change.ts';
import { netNameSchema } from './field.ts';
import { evidenceSchema, pathSchema } from './finding.ts';
import { modelSchema } from './model.ts';
import { nudgesSchema } from './nudge.ts';
import { partSchema } from './part-schema.ts';
import { photoOverlaySchema, photoPointsSchema } from './photo.ts';
import { fileReadingSchema, writtenTimeSchema } from './reading.ts';
import { readoutSchema } from './readout-schema.ts';
import { MOST_BEEPS } from './record/beep.ts';
import { MOST_CHANGES } from './record/change.ts';
import { MOST_EVIDENCE } from './record/evidence.ts';
import { LONGEST_SUMMARY, MOST_LOG } from './record/log.ts';
import { MOST_PARTS } from './record/part.ts';
import { MOST_PHOTOS } from './record/photo.ts';
import { MOST_READINGS } from './record/reading.ts';
import { MOST_READOUTS } from './record/readout.ts';
import { LIMITS, unitFieldSchemas } from './record/unit-fields.ts';

/**
 * The open unit file, `.zemble.json`. Values are numbers in SI units or strings in any notation of the
 * trade ("4k7"); core's reader turns them into numbers. Every object keeps fields it does not know, so that a
 * file from a later version passes through unharmed.
 */
export const UNIT_FILE_FORMAT = 'zemble/unit';
export const UNIT_FILE_VERSION = 1;

export const circuitSchema = z.looseObject({
  ground: netNameSchema,
  parts: z.array(partSchema).max(MOST_PARTS),
  models: z.array(modelSchema).max(LIMITS.models).optional(),
  /** What beeped with what, in the order in which it was found; the pins' nets follow from it. */
  beeps: z.array(beepSchema).max(MOST_BEEPS).optional(),
  /** Nets where something was taken away: what floats by that rests in the air. */
  loose: z.array(netNameSchema).max(2000).optional(),
});

/** A photo of a board as a file carries it, with the points on it; a link is to another photo of the file by its place, from 0. */
export const filePhotoSchema = z.looseObject({
  name: z.string().trim().min(1).max(120),
  jpeg: z.base64().max(8_000_000).meta({ description: 'The picture, JPEG in base64.' }),
  points: photoPointsSchema.optional(),
  overlay: photoOverlaySchema.optional(),
});
export type FilePhoto = z.infer<typeof filePhotoSchema>;

/** A line of the log as an exported file keeps it. */
const fileLogEntrySchema = z.looseObject({
  at: writtenTimeSchema,
  kind: z.string().max(32),
  summary: z.string().max(LONGEST_SUMMARY),
  undone: z.boolean().optional(),
  /** Who did it, where people have names. */
  by: z.string().max(60).optional(),
});

export const unitFileSchema = z.looseObject({
  format: z.literal(UNIT_FILE_FORMAT),
  version: z.literal(UNIT_FILE_VERSION),
  unit: z
    .looseObject({
      name: z.string().max(120).optional(),
      kind: z.string().max(80).optional(),
      /** Known hazards; other texts of older files become notes. */
      hazards: z.array(z.string().max(80)).max(LIMITS.hazards).optional(),
      hazardNotes: z.string().max(2000).optional(),
      notes: z.string().max(20000).optional(),
    })
    .optional(),
  circuit: circuitSchema,
  readouts: z.array(readoutSchema).max(MOST_READOUTS).optional(),
  path: pathSchema.optional(),
  changes: z.array(changeSchema).max(MOST_CHANGES).optional(),
  sets: unitFieldSchemas.sets.optional(),
  settings: unitFieldSchemas.settings.optional(),
  /** Wires between parts off the board, and to it. */
  wires: unitFieldSchemas.wires.optional(),
  boards: unitFieldSchemas.boards.optional(),
  panels: unitFieldSchemas.panels.optional(),
  bench: benchSchema.optional(),
  evidence: z.array(evidenceSchema).max(MOST_EVIDENCE).optional(),
  intake: unitFieldSchemas.intake.optional(),
  plan: z.looseObject({}).optional(),
  log: z.array(fileLogEntrySchema).max(MOST_LOG).optional(),
  readings: z.array(fileReadingSchema).max(MOST_READINGS).optional(),
  drawing: z.looseObject({ nudges: nudgesSchema.optional() }).optional(),
  photos: z.array(filePhotoSchema).max(MOST_PHOTOS).optional(),
});

export type UnitFile = z.infer<typeof unitFileSchema>;
