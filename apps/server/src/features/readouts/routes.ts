import { removeSchema, unitResourceSchema, writeReadoutSchema } from '@halfsplit/contract';
import { z } from 'zod';
import type { App } from '../../app.ts';
import { changeUnit } from '../units/access.ts';
import { addReadout, removeReadout, updateReadout } from './service.ts';

const unitParams = z.object({ unitId: z.uuid() });
const readoutParams = z.object({ unitId: z.uuid(), readoutId: z.uuid() });

export function readoutRoutes(app: App): void {
  app.post(
    '/units/:unitId/readouts',
    {
      schema: {
        tags: ['readouts'],
        summary: 'Add a readout',
        params: unitParams,
        body: writeReadoutSchema,
        response: { 201: unitResourceSchema },
      },
    },
    (request, reply) =>
      changeUnit(app.database, request, reply, request.params.unitId, 201, (unit, t) =>
        addReadout(unit, request.body, t),
      ),
  );
  app.put(
    '/units/:unitId/readouts/:readoutId',
    {
      schema: {
        tags: ['readouts'],
        summary: 'Change a readout',
        params: readoutParams,
        body: writeReadoutSchema,
        response: { 200: unitResourceSchema },
      },
    },
    (request, reply) =>
      changeUnit(app.database, request, reply, request.params.unitId, 200, (unit, t) =>
        updateReadout(unit, request.params.readoutId, request.body, t),
      ),
  );
  app.post(
    '/units/:unitId/readouts/:readoutId/remove',
    {
      schema: {
        tags: ['readouts'],
        summary: 'Remove a readout',
        params: readoutParams,
        body: removeSchema,
        response: { 200: unitResourceSchema },
      },
    },
    (request, reply) =>
      changeUnit(app.database, request, reply, request.params.unitId, 200, (unit, t) =>
        removeReadout(unit, request.params.readoutId, request.body.baseVersion, t),
      ),
  );
}
