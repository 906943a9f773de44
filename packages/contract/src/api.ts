import { z } from 'zod';
import { identitySchema, unitFieldsSchema } from './record/unit.ts';
import { ownIdSchema } from './record/act.ts';
import { UNIT_PLACES } from './names.ts';

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
  .extend({
    partCount: z.number().int(),
    measuredCount: z.number().int(),
    isSample: z.boolean().optional().meta({ description: 'It came with the application, to be looked at.' }),
  });
export type UnitSummary = z.infer<typeof unitSummarySchema>;

/** The most units that one answer lists. */
export const MOST_LISTED = 1000;
/** Which units are asked for: those of a place, those whose name or number answers to a text, and how many of them. */
export const unitListQuerySchema = z.object({
  place: z.enum(UNIT_PLACES).optional(),
  find: z.string().trim().max(100).optional(),
  limit: z.coerce.number().int().min(1).max(MOST_LISTED).default(MOST_LISTED),
});
export type UnitListQuery = z.infer<typeof unitListQuerySchema>;

/** Units, those that were worked on last first, of all that were asked for; and how many there are in each place. */
export const unitListSchema = z.object({
  units: z.array(unitSummarySchema),
  total: z.number().int(),
  places: z.record(z.enum(UNIT_PLACES), z.number().int()),
});
export type UnitList = z.infer<typeof unitListSchema>;

/** How often each kind of block was the culprit, over all units of this workshop. */
export const repairHistorySchema = z.object({ kinds: z.record(z.string(), z.number().int()) });
export type RepairHistory = z.infer<typeof repairHistorySchema>;

/** The text of a unit file as it was chosen; it is read and checked by the server. */
export const importUnitSchema = z.object({
  id: ownIdSchema,
  text: z.string(),
  fileName: z.string().max(255).optional(),
});
