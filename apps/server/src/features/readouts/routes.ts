import { createReadoutSchema, removeSchema, updateReadoutSchema } from '@zemble/contract';
import { z } from 'zod';
import type { App } from '../../app.ts';
import { unitWrite } from '../units/write-route.ts';
import { addReadout, removeReadout, updateReadout } from './service.ts';

const params = { readoutId: z.uuid() };

export function readoutRoutes(app: App): void {
  unitWrite(app, {
    method: 'POST',
    path: '/readouts',
    tag: 'readouts',
    summary: 'Add a readout',
    body: createReadoutSchema,
    status: 201,
    change: (unit, { body }, t) => addReadout(unit, body, t),
  });
  unitWrite(app, {
    method: 'PUT',
    path: '/readouts/:readoutId',
    tag: 'readouts',
    summary: 'Change a readout',
    params,
    body: updateReadoutSchema,
    status: 200,
    change: (unit, request, t) => updateReadout(unit, request.params.readoutId, request.body, t),
  });
  unitWrite(app, {
    method: 'POST',
    path: '/readouts/:readoutId/remove',
    tag: 'readouts',
    summary: 'Remove a readout',
    params,
    body: removeSchema,
    status: 200,
    change: (unit, request, t) => removeReadout(unit, request.params.readoutId, request.body.baseVersion, t),
  });
}
