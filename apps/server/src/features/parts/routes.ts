import { createPartSchema, removeSchema, updatePartSchema } from '@zemble/contract';
import { z } from 'zod';
import type { App } from '../../app.ts';
import { unitWrite } from '../units/write-route.ts';
import { addPart, removePart, updatePart } from './service.ts';

const params = { partId: z.uuid() };

export function partRoutes(app: App): void {
  unitWrite(app, {
    method: 'POST',
    path: '/parts',
    tag: 'parts',
    summary: 'Add a part',
    body: createPartSchema,
    status: 201,
    change: (unit, { body }, t) => addPart(unit, body, t),
  });
  unitWrite(app, {
    method: 'PUT',
    path: '/parts/:partId',
    tag: 'parts',
    summary: 'Change a part',
    params,
    body: updatePartSchema,
    status: 200,
    change: (unit, request, t) => updatePart(unit, request.params.partId, request.body, t),
  });
  unitWrite(app, {
    method: 'POST',
    path: '/parts/:partId/remove',
    tag: 'parts',
    summary: 'Remove a part',
    params,
    body: removeSchema,
    status: 200,
    change: (unit, request, t) => removePart(unit, request.params.partId, request.body.baseVersion, t),
  });
}
