import { z } from 'zod';

/** Where a symbol was moved to, in drawing units. */
const placeSchema = z.object({
  x: z.number().int().min(-1e6).max(1e6),
  y: z.number().int().min(-1e6).max(1e6),
});
/** Symbols that the user moved, by designator. */
export const nudgesSchema = z.record(z.string(), placeSchema);
