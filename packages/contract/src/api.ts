import { z } from 'zod';
import { identitySchema, unitFieldsSchema } from './record/unit.ts';
import { ownIdSchema } from './record/act.ts';

/** Paths, requests and answers of /api/v1. Times are ISO 8601 in UTC. */
export const API_ROOT = '/api/v1';

/** Every write carries this header: the same key again gives the first answer again, and changes nothing. */
export const IDEMPOTENCY_HEADER = 'idempotency-key';
export const idempotencyKeySchema = z.string().min(8).max(128);

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

export const unitListSchema = z.object({ units: z.array(unitSummarySchema) });

/** How often each kind of block was the culprit, over all units of this workshop. */
export const repairHistorySchema = z.object({ kinds: z.record(z.string(), z.number().int()) });
export type RepairHistory = z.infer<typeof repairHistorySchema>;

/** The text of a unit file as it was chosen; it is read and checked by the server. */
export const importUnitSchema = z.object({
  id: ownIdSchema,
  text: z.string(),
  fileName: z.string().max(255).optional(),
});
