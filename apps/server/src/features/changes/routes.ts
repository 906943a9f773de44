import { createChangeSchema, updateChangeSchema } from '@zemble/contract';
import { z } from 'zod';
import type { App } from '../../app.ts';
import { unitWrite } from '../units/write-route.ts';
import { addChange, updateChange } from './service.ts';

export function changeRoutes(app: App): void {
  unitWrite(app, {
    method: 'POST',
    path: '/changes',
    tag: 'changes',
    summary: 'Add a change to the circuit: planned, or done already',
    body: createChangeSchema,
    status: 201,
    change: (unit, { body }, t) => addChange(unit, body, t),
  });
  unitWrite(app, {
    method: 'PUT',
    path: '/changes/:changeId',
    tag: 'changes',
    summary: 'Change a change: its steps, its set, or where it stands',
    params: { changeId: z.uuid() },
    body: updateChangeSchema,
    status: 200,
    change: (unit, request, t) => updateChange(unit, request.params.changeId, request.body, t),
  });
}
