import { z } from 'zod';

const valueSchema = z.union([z.number(), z.string()], {
  error: 'it must be a number, or text in a notation of the trade',
});

/** Readings to be judged: what the meter showed, null where it showed overload or too little to read. */
export const readingsFileSchema = z.array(
  z.strictObject({
    part: z.string(),
    reading: valueSchema.nullable(),
    /** Series resistance of a capacitor, ohm. */
    esr: valueSchema.optional(),
    inCircuit: z.boolean().optional(),
    /** Pin that had the red lead. */
    red: z.string().optional(),
    /** What was read when it is not the main value: `b-e`, `gain`, `leakage`, … */
    aspect: z.string().optional(),
  }),
  { error: 'it must be a list of readings' },
);
export type ReadingsFile = z.infer<typeof readingsFileSchema>;
