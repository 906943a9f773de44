import { z } from 'zod';
import { refSchema } from './part-schema.ts';

/**
 * What a continuity test said of its ends: all beep with one another; the first beeps with none of the others; the first
 * beeps with one of the others, and which was not seen.
 */
export const BEEP_SAYS = ['together', 'apart', 'one of'] as const;
export const beepSaysSchema = z.enum(BEEP_SAYS);
export type BeepSays = z.infer<typeof beepSaysSchema>;

/** The most ends that one beep names. */
export const MOST_ENDS = 200;

/** One finding of a continuity test. Its ends are pins, "C3.a", or nets by name. */
export const beepSchema = z.looseObject({
  says: beepSaysSchema,
  ends: z
    .array(z.string().trim().min(1).max(96), 'A beep has two ends or more.')
    .min(2, 'A beep has two ends or more.')
    .max(MOST_ENDS, `A beep has at most ${MOST_ENDS} ends.`),
  through: refSchema.nullable().optional().meta({
    description:
      'The part of low resistance that it beeps through, so that it joins nothing; null where it was asked and is none.',
  }),
  withdrawn: z.boolean().optional(),
});
export type BeepData = z.infer<typeof beepSchema>;
