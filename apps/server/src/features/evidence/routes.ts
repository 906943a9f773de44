import { createEvidenceSchema } from '@zemble/contract';
import { z } from 'zod';
import type { App } from '../../app.ts';
import { unitWrite } from '../units/write-route.ts';
import { addEvidence, withdrawEvidence } from './service.ts';

export function evidenceRoutes(app: App): void {
  unitWrite(app, {
    method: 'POST',
    path: '/evidence',
    tag: 'evidence',
    summary: 'Record a test and what was seen',
    body: createEvidenceSchema,
    status: 201,
    change: (unit, { body }, t) => addEvidence(unit, body, t),
  });
  unitWrite(app, {
    method: 'POST',
    path: '/evidence/:evidenceId/withdraw',
    tag: 'evidence',
    summary: 'Withdraw a test: it stays in the history and counts no more',
    params: { evidenceId: z.uuid() },
    body: z.object({}),
    status: 200,
    change: (unit, { params }, t) => withdrawEvidence(unit, params.evidenceId, t),
  });
}
