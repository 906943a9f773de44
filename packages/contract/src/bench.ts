import { z } from 'zod';
import { readoutValuesSchema } from './change.ts';
import { writtenTimeSchema } from './reading.ts';

/** Steps of the bench work that no change has: when each was ticked, by its id. Those of changes are ticked in them. */
export const ticksSchema = z.record(
  z.string().min(1).max(200),
  z.looseObject({ at: writtenTimeSchema, by: z.string().max(60).optional() }),
);
export type Tick = z.infer<typeof ticksSchema>[string];
export type BenchTicks = Readonly<Record<string, Tick>>;
/** The most steps that are kept ticked. */
export const MOST_TICKS = 5000;
/** A step that is ticked, or is not any more. */
export const tickSchema = z.object({
  id: z.string().min(1).max(200),
  /** What was done, for the log. */
  words: z.string().trim().min(1).max(1000),
  isDone: z.boolean(),
  at: writtenTimeSchema,
  /** The work that the step is of, as it was asked for; all that is planned when absent. */
  work: z
    .object({
      change: z.string().min(1).max(64).optional(),
      isWhole: z.boolean().optional(),
      isBack: z.boolean().optional(),
      alsoDone: z.array(z.string().max(64)).max(500).optional(),
    })
    .optional(),
  /** The step of a change that it is, as the page shows it at once; the server finds it by itself. */
  step: z.object({ change: z.string().max(64), step: z.number().int().min(0) }).optional(),
  /** Readouts before the work and as predicted with it, where the last tick makes a change done. */
  measures: z.object({ before: readoutValuesSchema, predicted: readoutValuesSchema }).optional(),
});
export type TickRequest = z.output<typeof tickSchema>;
export const benchSchema = z.looseObject({ ticks: ticksSchema });
