import { beepThroughSchema, createBeepSchema } from '@zemble/contract';
import { z } from 'zod';
import type { App } from '../../app.ts';
import { unitWrite } from '../units/write-route.ts';
import { addBeep, sayThrough, withdrawBeep } from './service.ts';

export function beepRoutes(app: App): void {
  unitWrite(app, {
    method: 'POST',
    path: '/beeps',
    tag: 'beeps',
    summary: 'Record what beeped with what; the nets of the parts follow from it',
    body: createBeepSchema,
    status: 201,
    change: (unit, { body }, t) => addBeep(unit, body, t),
  });
  unitWrite(app, {
    method: 'POST',
    path: '/beeps/:beepId/withdraw',
    tag: 'beeps',
    summary: 'Withdraw a beep: it stays in the history, and the nets are as they were without it',
    params: { beepId: z.uuid() },
    body: z.object({}),
    status: 200,
    change: (unit, { params }, t) => withdrawBeep(unit, params.beepId, t),
  });
  unitWrite(app, {
    method: 'POST',
    path: '/beeps/:beepId/through',
    tag: 'beeps',
    summary: 'Say through which part of low resistance it beeped, or that it was through none',
    params: { beepId: z.uuid() },
    body: beepThroughSchema,
    status: 200,
    change: (unit, { params, body }, t) => sayThrough(unit, params.beepId, body.through, t),
  });
}
