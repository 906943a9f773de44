import { setWorkshopSchema, workshopSchema, type MainsHz, type Workshop } from '@zemble/contract';
import { z } from 'zod';
import { ask } from './client.ts';

export const WORKSHOP_KEY = '/workshop';

export const getWorkshop = (): Promise<Workshop> => ask('GET', WORKSHOP_KEY, workshopSchema);

/** What a page says of the workshop. */
export const workshopEntrySchema = setWorkshopSchema.extend({ type: z.literal('set-workshop') });
export type WorkshopEntry = z.infer<typeof workshopEntrySchema>;

export const setMains = (mainsHz: MainsHz): WorkshopEntry => ({ type: 'set-workshop', mainsHz });
