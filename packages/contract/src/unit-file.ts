import { z } from 'zod';
import { evidenceSchema, intakeSchema, pathSchema } from './finding.ts';
import { layerSchema, partKindSchema } from './names.ts';

/**
 * The open unit file, `.halfsplit.json`. Values are numbers in SI units or strings in any notation of the
 * trade ("4k7"); core's reader turns them into numbers. Every object keeps fields it does not know, so that a
 * file from a later version passes through unharmed.
 */
export const UNIT_FILE_FORMAT = 'halfsplit/unit';
export const UNIT_FILE_VERSION = 1;

export const quantitySchema = z.union([z.number(), z.string().min(1).max(64)]).meta({
  description: 'A number in SI units, or text such as "4k7", "100n", "0.022u".',
});

export const partValueSchema = z
  .union([quantitySchema, z.literal('open'), z.literal('short')])
  .nullable()
  .meta({ description: 'A value, "open", "short", or null where the layer has none.' });

export const netNameSchema = z.string().trim().min(1).max(64);
export const refSchema = z.string().trim().min(1).max(32);

export const partSchema = z.looseObject({
  ref: refSchema,
  kind: partKindSchema,
  pins: z.record(z.string().min(1).max(32), netNameSchema),
  marked: partValueSchema.optional(),
  found: partValueSchema.optional(),
  planned: partValueSchema.optional(),
  proven: partValueSchema.optional(),
  tolerance: z
    .number()
    .min(0)
    .max(10)
    .optional()
    .meta({ description: 'Fraction: 0.05 is plus or minus 5 %.' }),
  model: z.string().max(64).optional(),
  params: z.record(z.string(), z.union([quantitySchema, z.string()])).optional(),
  note: z.string().max(2000).optional(),
});

/** A model that a unit brings along: a type number the library does not have, or has otherwise. */
export const modelSchema = z.looseObject({
  name: z.string().trim().min(1).max(64),
  kind: partKindSchema,
  params: z.record(z.string().min(1).max(16), z.union([z.number(), z.string()])),
});
export type OwnModel = z.infer<typeof modelSchema>;

export const circuitSchema = z.looseObject({
  ground: netNameSchema,
  parts: z.array(partSchema).max(2000),
  models: z.array(modelSchema).max(200).optional(),
});

export const wantSchema = z.looseObject({
  min: quantitySchema.optional(),
  max: quantitySchema.optional(),
  target: quantitySchema.optional(),
  within: quantitySchema.optional(),
});

export const READOUT_KINDS = [
  'gain',
  'corner',
  'voltage',
  'current',
  'dissipation',
  'inputImpedance',
  'outputImpedance',
  'noise',
  'thd',
  'headroom',
  'rate',
  'period',
  'delay',
  'separation',
  'curveError',
  'thump',
  'ripple',
  'range',
  'stability',
] as const;
export const readoutKindSchema = z.enum(READOUT_KINDS);
export type ReadoutKind = z.infer<typeof readoutKindSchema>;

export const readoutSchema = z.looseObject({
  id: z.string().trim().min(1).max(64),
  name: z.string().trim().min(1).max(120),
  kind: readoutKindSchema,
  want: wantSchema.optional(),
});

/** A photo of a board as a file carries it, with the points on it in fractions of width and height. */
export const filePhotoSchema = z.looseObject({
  name: z.string().trim().min(1).max(120),
  jpeg: z.base64().max(8_000_000).meta({ description: 'The picture, JPEG in base64.' }),
  points: z
    .array(
      z.object({
        target: z.string().trim().min(1).max(64),
        x: z.number().min(0).max(1),
        y: z.number().min(0).max(1),
      }),
    )
    .max(500)
    .optional(),
});
export type FilePhoto = z.infer<typeof filePhotoSchema>;

export const unitFileSchema = z.looseObject({
  format: z.literal(UNIT_FILE_FORMAT),
  version: z.literal(UNIT_FILE_VERSION),
  unit: z
    .looseObject({
      name: z.string().max(120).optional(),
      kind: z.string().max(80).optional(),
      hazards: z.array(z.string().max(80)).max(20).optional(),
      notes: z.string().max(20000).optional(),
    })
    .optional(),
  circuit: circuitSchema,
  readouts: z.array(readoutSchema).max(200).optional(),
  path: pathSchema.optional(),
  evidence: z.array(evidenceSchema).max(2000).optional(),
  intake: intakeSchema.optional(),
  plan: z.looseObject({}).optional(),
  log: z.array(z.looseObject({})).optional(),
  photos: z.array(filePhotoSchema).max(50).optional(),
});

export type UnitFile = z.infer<typeof unitFileSchema>;
export type UnitFilePart = z.infer<typeof partSchema>;
export type UnitFileReadout = z.infer<typeof readoutSchema>;
export type Want = z.infer<typeof wantSchema>;
export { layerSchema };
