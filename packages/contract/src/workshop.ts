import { z } from 'zod';

/** Frequencies of the mains, Hz (IEC 60038). */
export const MAINS_HZ = [50, 60] as const;
export type MainsHz = (typeof MAINS_HZ)[number];
/** What is taken as long as nobody has said it, Hz. */
export const USUAL_MAINS_HZ: MainsHz = 50;

/** What holds for the whole workshop, whichever unit is on the bench. */
export const workshopSchema = z.strictObject({
  /** Frequency of the mains, Hz; null as long as nobody has said it. */
  mainsHz: z.literal(MAINS_HZ).nullable(),
});
export type Workshop = z.infer<typeof workshopSchema>;

/** What somebody says of the workshop. */
export const setWorkshopSchema = z.strictObject({ mainsHz: z.literal(MAINS_HZ) });

/** What a write to the workshop or its drawer answers: what it changed is read anew. */
export const plainAnswerSchema = z.object({ ok: z.literal(true) });
