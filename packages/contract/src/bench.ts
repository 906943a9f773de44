import { z } from 'zod';
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
  at: z.iso.datetime(),
});
export type TickRequest = z.output<typeof tickSchema>;
export const benchSchema = z.looseObject({ ticks: ticksSchema });
