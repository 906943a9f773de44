import { createPartSchema, removeSchema, unitResourceSchema, updatePartSchema } from '@halfsplit/contract';
import { z } from 'zod';
import type { App } from '../../app.ts';
import { changeUnit } from '../units/access.ts';
import { addPart, removePart, updatePart } from './service.ts';

const unitParams = z.object({ unitId: z.uuid() });
const partParams = z.object({ unitId: z.uuid(), partId: z.uuid() });
const answers = (status: 200 | 201) => ({ [status]: unitResourceSchema });

export function partRoutes(app: App): void {
  app.post(
    '/units/:unitId/parts',
    {
      schema: {
        tags: ['parts'],
        summary: 'Add a part',
        params: unitParams,
        body: createPartSchema,
        response: answers(201),
      },
    },
    (request, reply) =>
      changeUnit(app.database, request, reply, request.params.unitId, 201, (unit, t) =>
        addPart(unit, request.body, t),
      ),
  );
  app.put(
    '/units/:unitId/parts/:partId',
    {
      schema: {
        tags: ['parts'],
        summary: 'Change a part',
        params: partParams,
        body: updatePartSchema,
        response: answers(200),
      },
    },
    (request, reply) =>
      changeUnit(app.database, request, reply, request.params.unitId, 200, (unit, t) =>
        updatePart(unit, request.params.partId, request.body, t),
      ),
  );
  app.post(
    '/units/:unitId/parts/:partId/remove',
    {
      schema: {
        tags: ['parts'],
        summary: 'Remove a part',
        params: partParams,
        body: removeSchema,
        response: answers(200),
      },
    },
    (request, reply) =>
      changeUnit(app.database, request, reply, request.params.unitId, 200, (unit, t) =>
        removePart(unit, request.params.partId, request.body.baseVersion, t),
      ),
  );
}
