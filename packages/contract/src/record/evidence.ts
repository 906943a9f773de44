import { z } from 'zod';
import { evidenceSchema } from '../finding.ts';
import { act, idSchema, ownIdSchema, takenAtSchema, timeSchema } from './act.ts';
import { row } from './row.ts';

/** One test of the search, as it was seen. Never changed but for being withdrawn. */
export const evidenceResourceSchema = evidenceSchema.omit({ withdrawn: true }).extend({
  id: idSchema,
  takenAt: timeSchema,
  withdrawn: z.boolean(),
});
export type EvidenceResource = z.infer<typeof evidenceResourceSchema>;

export const MOST_EVIDENCE = 2000;
export const evidenceRow = row({
  of: 'evidence',
  list: 'evidence',
  words: ['test', 'tests'],
  schema: evidenceResourceSchema,
  most: MOST_EVIDENCE,
  order: 'time',
  goes: 'withdrawn',
});

/** A test as it is recorded, before it has an id and a time. */
export const newEvidenceSchema = evidenceSchema.omit({ withdrawn: true });
export type CreateEvidence = z.input<typeof newEvidenceSchema>;
export const createEvidenceSchema = newEvidenceSchema.extend({ id: ownIdSchema, takenAt: takenAtSchema });

export const evidenceActs = {
  'add-evidence': act({
    schema: z.object({
      type: z.literal('add-evidence'),
      id: idSchema,
      evidence: newEvidenceSchema,
      takenAt: timeSchema,
    }),
    route: { method: 'POST', path: '/evidence', status: 201, summary: 'Record a test and what was seen' },
    body: createEvidenceSchema,
    toBody: ({ evidence, id, takenAt }) => ({ ...evidence, id, takenAt }),
  }),
  'withdraw-evidence': act({
    schema: z.object({ type: z.literal('withdraw-evidence'), evidenceId: idSchema }),
    route: {
      method: 'POST',
      path: '/evidence/:evidenceId/withdraw',
      status: 200,
      summary: 'Withdraw a test: it stays in the history and counts no more',
    },
    body: z.object({}),
    toBody: () => ({}),
  }),
} as const;
