import { z } from 'zod';
import { bodySchema } from './body.ts';
import { netNameSchema, quantitySchema, shapeOf } from './field.ts';
import { LAYERS, type Layer } from './names.ts';
import { PART_DEFINITIONS, PART_KINDS, type PartKind } from './parts/index.ts';
import { COMMON_FIELDS, type FilePart } from './parts/part.ts';

export const partValueSchema = z
  .union([quantitySchema, z.literal('open'), z.literal('short')])
  .nullable()
  .meta({ description: 'A value, "open", "short", or null where the layer has none.' });

export const refSchema = z.string().trim().min(1).max(32);
const pinsSchema = z.record(z.string().min(1).max(32), netNameSchema);
const paramsSchema = z.record(z.string().min(1).max(32), quantitySchema);

export const unknownKind = (of: string, kinds: readonly string[]) => (issue: { readonly code?: string }) =>
  issue.code === 'invalid_union' ? `it is no kind of ${of}; there are ${kinds.join(', ')}` : undefined;

/** The schema of one kind of part, with the layers it may carry. */
function partShape(kind: PartKind, layers: readonly Layer[]) {
  const { fields, params } = PART_DEFINITIONS[kind];
  return z.looseObject({
    ref: refSchema,
    kind: z.literal(kind),
    pins: pinsSchema,
    saidPins: pinsSchema.optional().meta({
      description:
        'Nets of the pins as they were said, where what beeps has joined more; a pin that is missing was left to it.',
    }),
    pinNotes: z.record(z.string().min(1).max(32), z.string().min(1).max(200)).optional().meta({
      description: 'What the data sheet has around a pin: "to gnd through 10u: rejects ripple".',
    }),
    body: bodySchema.optional().meta({
      description: 'Its size where it is not the usual one of its kind and rating, mm.',
    }),
    ...Object.fromEntries(layers.map((layer) => [layer, partValueSchema.optional()])),
    ...(layers.includes('found') ? { foundParams: paramsSchema.optional() } : {}),
    ...shapeOf(COMMON_FIELDS),
    model: z.string().max(64).optional(),
    params: paramsSchema.optional(),
    ...shapeOf(fields),
    ...shapeOf(params),
  });
}

type PartShape = ReturnType<typeof partShape>;
const anyPart = (layers: readonly Layer[]) =>
  z.discriminatedUnion(
    'kind',
    PART_KINDS.map((kind) => partShape(kind, layers)) as [PartShape, ...PartShape[]],
    { error: unknownKind('part', PART_KINDS) },
  );

/** A part of any kind as a file may have it: one schema a kind, made from its definition. */
export const partSchema = anyPart(LAYERS) as z.ZodType<FilePart, FilePart>;
/** A part's own data, but for the found value, which comes from the readings. */
export const sheetPartSchema = anyPart(LAYERS.filter((l) => l !== 'found')) as z.ZodType<
  SheetPart,
  SheetPart
>;
export type SheetPart = FilePart;

/** A part as it is kept: whatever an older version wrote is handed on, and read where it is used. */
export const keptPartSchema = z.looseObject({
  ref: z.string(),
  kind: z.enum(PART_KINDS),
  pins: z.record(z.string(), z.string()),
}) as z.ZodType<SheetPart, SheetPart>;
