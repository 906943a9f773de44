import { z } from 'zod';
import { netNameSchema } from './field.ts';

/** An end of a wire: a lug ("P1.2"), a place on the board ("board.in2"), or words for one whose net is not known yet. */
const endSchema = z
  .string('A wire has two ends.')
  .trim()
  .min(1, 'A wire has two ends.')
  .max(120, 'An end of a wire is at most 120 characters.');

/** A wire between parts off the board, or from one to the board. */
export const wireSchema = z.looseObject({
  id: z.string().trim().min(1).max(64),
  colour: z.string().trim().max(40).optional(),
  from: endSchema,
  to: endSchema,
  net: netNameSchema.optional(),
  length: z
    .union([z.number(), z.string().max(32)])
    .optional()
    .meta({
      description: 'Its length, a number of millimetres or text with a unit.',
    }),
  note: z.string().max(500).optional(),
}) as z.ZodType<Wire, Wire>;
export interface Wire {
  readonly id: string;
  readonly colour?: string | undefined;
  readonly from: string;
  readonly to: string;
  readonly net?: string | undefined;
  readonly length?: number | string | undefined;
  readonly note?: string | undefined;
}
export const wiresSchema = z.array(wireSchema).max(1000);
