import { z } from 'zod';

/**
 * How a part was read: across it in its circuit, by itself, or from what a known part beside it changed, which has an error
 * of its own.
 */
export const READING_CONDITIONS = ['in circuit', 'leg lifted', 'from a change'] as const;
export const readingConditionSchema = z.enum(READING_CONDITIONS);
export type ReadingCondition = z.infer<typeof readingConditionSchema>;

export const readingValueSchema = z.union([z.number(), z.literal('open'), z.literal('short')]);

/** Where the value lies that a change tells: one standard deviation either way, without `high` where it is open upwards. */
export const betweenSchema = z
  .object({ low: z.number().min(0), high: z.number().positive().optional() })
  .refine(({ low, high }) => high === undefined || low <= high, {
    message: 'the lower end is above the upper one',
  });
export type Between = z.infer<typeof betweenSchema>;

/** Longest name of an instrument, of what was read, and of a pin. */
const LONGEST = { instrument: 80, aspect: 16, pin: 32 } as const;

/** What a reading says beside its value, as it is typed; every field may be missing. */
export const readingFields = {
  instrument: z.string().trim().max(LONGEST.instrument),
  /** Series resistance read with a capacity, ohm. */
  esr: z.number().positive().max(1e9),
  /** What was read when it is not the part's main value: a junction `b-e`, `gain`, `leakage`, `contact`, … */
  aspect: z.string().trim().min(1).max(LONGEST.aspect),
  /** Pin that had the red lead. */
  red: z.string().trim().min(1).max(LONGEST.pin),
  /** All controls and switches stood as drawn. */
  isAsDrawn: z.boolean(),
  /** Where the value lies, of a reading from a change. */
  between: betweenSchema,
} as const;

/** A time that something was done at a bench: from 1970 on. */
export const writtenTimeSchema = z.iso
  .datetime({ offset: true })
  .refine((time) => time >= '1970' && time < '2200', { message: 'it lies before 1970 or after 2200' });

/** A reading as an exported unit file keeps it: of a part by its designator, or of a readout by its id. */
export const fileReadingSchema = z
  .looseObject({
    ref: z.string().optional(),
    readout: z.string().optional(),
    /** The change, by its id, that put in the part that was read. */
    change: z.string().max(64).optional(),
    value: readingValueSchema,
    condition: readingConditionSchema,
    instrument: readingFields.instrument.nullish(),
    esr: readingFields.esr.nullish(),
    aspect: readingFields.aspect.nullish(),
    red: readingFields.red.nullish(),
    isAsDrawn: readingFields.isAsDrawn.optional(),
    between: readingFields.between.nullish(),
    takenAt: writtenTimeSchema,
    withdrawn: z.boolean().optional(),
  })
  .refine((r) => (r.ref === undefined) !== (r.readout === undefined), {
    message: 'a reading is of one part (ref) or of one readout',
  });
export type FileReading = z.infer<typeof fileReadingSchema>;
