import {
  ACTS,
  actSchema,
  batchSchema,
  createUnitSchema,
  problemDocumentSchema,
  type Act,
} from '@zemble/contract';
import { z } from 'zod';
import { WORKSHOP_KEY, workshopEntrySchema } from './workshop.ts';
import { DRAWER_LANE, isStockEntry, stockEntrySchema, stockRequest } from './drawer.ts';

/** What a page enters: an act on the record of a unit, several that are one thought, a new unit, a file, what goes into the drawer, or holds for the workshop. */
export const entrySchema = z.union([
  actSchema,
  batchSchema.extend({ type: z.literal('batch') }),
  /** A photo, with the file as it was chosen. */
  z.object({ type: z.literal('add-photo'), id: z.uuid(), name: z.string(), file: z.instanceof(Blob) }),
  z.object({
    type: z.literal('create-unit'),
    values: createUnitSchema.omit({ id: true }),
    at: z.iso.datetime(),
  }),
  /** A unit file that was opened while the server was away, under the id that the unit will have. */
  z.object({ type: z.literal('open-file'), text: z.string(), fileName: z.string() }),
  stockEntrySchema,
  workshopEntrySchema,
]);
export type Entry = z.infer<typeof entrySchema>;

/** An entry on its way to the server; parked when the server has refused it for good. */
export const writeSchema = z.object({
  /** Idempotency key. */
  key: z.uuid(),
  /** The unit that it is of, or the drawer. */
  unitId: z.uuid().or(z.literal(DRAWER_LANE)),
  /** Its place among all that was entered in this browser; what an older page kept has none, and goes before. */
  order: z.number().int().optional(),
  /** Whose it is, where people have names. */
  personId: z.string().optional(),
  change: entrySchema,
  refusal: problemDocumentSchema.optional(),
});
export type Write = z.infer<typeof writeSchema>;

/** Several acts as one thought; nothing where there are none. */
export function asOneEntry(acts: readonly Act[], words?: string): Entry | null {
  const [first] = acts;
  if (!first) return null;
  if (acts.length === 1) return first;
  return { type: 'batch', acts: [...acts], ...(words === undefined ? {} : { words }) };
}

/** The request that carries an entry. */
export interface Request {
  readonly method: string;
  readonly path: string;
  readonly body: unknown;
}

export function requestFor({ unitId, change }: Pick<Write, 'unitId' | 'change'>): Request {
  if (isStockEntry(change)) return { method: 'POST', ...stockRequest(change) };
  const root = `/units/${unitId}`;
  switch (change.type) {
    case 'create-unit':
      return { method: 'POST', path: '/units', body: { id: unitId, ...change.values } };
    case 'set-workshop':
      return { method: 'POST', path: WORKSHOP_KEY, body: { mainsHz: change.mainsHz } };
    case 'open-file': {
      const { text, fileName } = change;
      return { method: 'POST', path: '/units/import', body: { id: unitId, text, fileName } };
    }
    case 'add-photo': {
      const body = new FormData();
      body.append('photo', change.file, change.name);
      return { method: 'POST', path: `${root}/photos?id=${change.id}`, body };
    }
    case 'batch': {
      const { type: _type, ...body } = change;
      return { method: 'POST', path: `${root}/batch`, body };
    }
    default: {
      const { route, toBody } = ACTS[change.type];
      const path = route.path.replace(/:(\w+)/g, (_, name: string) => String(Reflect.get(change, name)));
      return {
        method: route.method,
        path: `${root}${path}`,
        body: (toBody as (act: Act) => unknown)(change),
      };
    }
  }
}
