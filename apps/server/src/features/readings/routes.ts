import { createReadingSchema, unitResourceSchema } from '@halfsplit/contract';
import { z } from 'zod';
import type { App } from '../../app.ts';
import { changeUnit } from '../units/access.ts';
import { addReading } from './service.ts';

export function readingRoutes(app: App): void {
  app.post(
    '/units/:unitId/readings',
    {
      schema: {
        tags: ['readings'],
        summary: 'Add a reading of a part or a readout',
        params: z.object({ unitId: z.uuid() }),
        body: createReadingSchema,
        response: { 201: unitResourceSchema },
      },
    },
    (request, reply) =>
      changeUnit(app.database, request, reply, request.params.unitId, 201, (unit, t) =>
        addReading(unit, request.body, t),
      ),
  );
}
