import { z } from 'zod';
import { quantitySchema, shapeOf } from './field.ts';
import { unknownKind } from './part-schema.ts';
import { READOUT_DEFINITIONS, READOUT_KINDS, type ReadoutKind } from './readouts/index.ts';
import { READOUT_COMMON_FIELDS, type FileReadout } from './readouts/readout.ts';

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
