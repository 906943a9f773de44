import { z } from 'zod';
import { partValueSchema, refSchema } from '../part-schema.ts';
import { act, idSchema } from './act.ts';

export const planValuesSchema = z.object({
  /** Of the change that it makes, where it makes one. */
  id: idSchema,
  /** The values that are planned, by designator. */
  values: z.record(refSchema, partValueSchema).refine((values) => Object.keys(values).length > 0, {
    message: 'a plan has a value at least',
  }),
  why: z.string().max(2000),
  purpose: z.enum(['repair', 'modification']).default('repair'),
});
export type PlanValues = z.input<typeof planValuesSchema>;
export const dropPlanSchema = z.object({ ref: refSchema });

/** Plans of values for parts: what they replace, and what becomes of it, follows from what is planned by then. */
export const planActs = {
  'plan-values': act({
    schema: planValuesSchema.extend({ type: z.literal('plan-values') }),
    route: { method: 'POST', path: '/plans', status: 201, summary: 'Plan other values for parts' },
    body: planValuesSchema,
    toBody: ({ type: _type, ...body }) => body,
  }),
  'drop-plan': act({
    schema: dropPlanSchema.extend({ type: z.literal('drop-plan') }),
    route: { method: 'POST', path: '/plans/drop', status: 200, summary: 'Drop what is planned for a part' },
    body: dropPlanSchema,
    toBody: ({ ref }) => ({ ref }),
  }),
} as const;
