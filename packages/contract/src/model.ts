import { z } from 'zod';
import { PART_KINDS } from './parts/index.ts';

/** A model that a unit brings along: a type number the library does not have, or has otherwise. */
export const modelSchema = z.looseObject({
  name: z.string().trim().min(1).max(64),
  kind: z.enum(PART_KINDS),
  params: z.record(z.string().min(1).max(16), z.union([z.number(), z.string()])),
});
export type OwnModel = z.infer<typeof modelSchema>;
