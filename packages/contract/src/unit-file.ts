import { z } from 'zod';
import { beepSchema } from './beep.ts';
import { benchSchema } from './bench.ts';
import { boardsSchema } from './board.ts';
import { changeSchema, setSchema } from './change.ts';
import { netNameSchema, quantitySchema, shapeOf } from './field.ts';
import { evidenceSchema, intakeSchema, pathSchema } from './finding.ts';
import { partSchema, unknownKind } from './part-schema.ts';
import { PART_KINDS } from './parts/index.ts';
import { READOUT_DEFINITIONS, READOUT_KINDS, type ReadoutKind } from './readouts/index.ts';
import { READOUT_COMMON_FIELDS, type FileReadout } from './readouts/readout.ts';
import { fileReadingSchema, writtenTimeSchema } from './reading.ts';
import { panelsSchema } from './panel.ts';
import { photoOverlaySchema, photoPointsSchema } from './photo.ts';
import { settingSchema } from './setting.ts';
import { wiresSchema } from './wire.ts';

/**
 * The open unit file, `.zemble.json`. Values are numbers in SI units or strings in any notation of the
 * trade ("4k7"); core's reader turns them into numbers. Every object keeps fields it does not know, so that a
 * file from a later version passes through unharmed.
 */
export const UNIT_FILE_FORMAT = 'zemble/unit';
export const UNIT_FILE_VERSION = 1;

/** A model that a unit brings along: a type number the library does not have, or has otherwise. */
export const modelSchema = z.looseObject({
  name: z.string().trim().min(1).max(64),
  kind: z.enum(PART_KINDS),
  params: z.record(z.string().min(1).max(16), z.union([z.number(), z.string()])),
});
export type OwnModel = z.infer<typeof modelSchema>;

export const circuitSchema = z.looseObject({
  ground: netNameSchema,
  parts: z.array(partSchema).max(2000),
  models: z.array(modelSchema).max(200).optional(),
  /** What beeped with what, in the order in which it was found; the pins' nets follow from it. */
  beeps: z.array(beepSchema).max(5000).optional(),
  /** Nets where something was taken away: what floats by that rests in the air. */
  loose: z.array(netNameSchema).max(2000).optional(),
});

export const wantSchema = z.strictObject(
  {
    min: quantitySchema.optional(),
    max: quantitySchema.optional(),
    target: quantitySchema.optional(),
    within: quantitySchema.optional(),
    wish: z
      .number('The weight of a wish is a number above zero')
      .positive('The weight of a wish is a number above zero')
      .max(1000)
      .optional(),
  },
  {
    error: (issue) =>
      issue.code === 'unrecognized_keys'
        ? `${issue.keys.map((k) => `"${k}"`).join(', ')} is not known here; a want has min, max, target, within and wish`
        : undefined,
  },
);

function readoutShape(kind: ReadoutKind) {
  return z.looseObject({
    id: z.string().trim().min(1).max(64),
    name: z.string().trim().min(1).max(120),
    kind: z.literal(kind),
    ...shapeOf(READOUT_DEFINITIONS[kind].fields),
    ...shapeOf(READOUT_COMMON_FIELDS),
    want: wantSchema.optional(),
  });
}
type ReadoutShape = ReturnType<typeof readoutShape>;

/** A readout of any kind as a file may have it: one schema a kind, made from its definition. */
export const readoutSchema = z.discriminatedUnion(
  'kind',
  READOUT_KINDS.map(readoutShape) as [ReadoutShape, ...ReadoutShape[]],
  { error: unknownKind('readout', READOUT_KINDS) },
) as z.ZodType<FileReadout, FileReadout>;

/** A readout as it is kept: whatever an older version wrote is handed on, and read where it is used. */
export const keptReadoutSchema = z.looseObject({
  id: z.string(),
  name: z.string(),
  kind: z.enum(READOUT_KINDS),
}) as z.ZodType<FileReadout, FileReadout>;

/** A photo of a board as a file carries it, with the points on it; a link is to another photo of the file by its place, from 0. */
export const filePhotoSchema = z.looseObject({
  name: z.string().trim().min(1).max(120),
  jpeg: z.base64().max(8_000_000).meta({ description: 'The picture, JPEG in base64.' }),
  points: photoPointsSchema.optional(),
  overlay: photoOverlaySchema.optional(),
});
export type FilePhoto = z.infer<typeof filePhotoSchema>;

/** Where a symbol was moved to, in drawing units. */
const placeSchema = z.object({
  x: z.number().int().min(-1e6).max(1e6),
  y: z.number().int().min(-1e6).max(1e6),
});
/** Symbols that the user moved, by designator. */
export const nudgesSchema = z.record(z.string(), placeSchema);

/** A line of the log as an exported file keeps it. */
const fileLogEntrySchema = z.looseObject({
  at: writtenTimeSchema,
  kind: z.string().max(32),
  summary: z.string().max(5000),
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
      hazards: z.array(z.string().max(80)).max(20).optional(),
      hazardNotes: z.string().max(2000).optional(),
      notes: z.string().max(20000).optional(),
    })
    .optional(),
  circuit: circuitSchema,
  readouts: z.array(readoutSchema).max(200).optional(),
  path: pathSchema.optional(),
  changes: z.array(changeSchema).max(500).optional(),
  sets: z.array(setSchema).max(50).optional(),
  settings: z.array(settingSchema).max(200).optional(),
  /** Wires between parts off the board, and to it. */
  wires: wiresSchema.optional(),
  boards: boardsSchema.optional(),
  panels: panelsSchema.optional(),
  bench: benchSchema.optional(),
  evidence: z.array(evidenceSchema).max(2000).optional(),
  intake: intakeSchema.optional(),
  plan: z.looseObject({}).optional(),
  log: z.array(fileLogEntrySchema).max(100_000).optional(),
  readings: z.array(fileReadingSchema).max(100_000).optional(),
  drawing: z.looseObject({ nudges: nudgesSchema.optional() }).optional(),
  photos: z.array(filePhotoSchema).max(50).optional(),
});

export type UnitFile = z.infer<typeof unitFileSchema>;
