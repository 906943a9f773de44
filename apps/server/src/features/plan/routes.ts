import { acceptPlanSchema, unitResourceSchema } from '@halfsplit/contract';
import { z } from 'zod';
import type { App } from '../../app.ts';
import { changeUnit } from '../units/access.ts';
import { acceptPlan } from './service.ts';

export function planRoutes(app: App): void {
  app.post(
    '/units/:unitId/plan',
    {
      schema: {
        tags: ['plan'],
        summary: 'Accept planned values',
        params: z.object({ unitId: z.uuid() }),
        body: acceptPlanSchema,
        response: { 200: unitResourceSchema },
      },
    },
    (request, reply) =>
      changeUnit(app.database, request, reply, request.params.unitId, 200, (unit, t) =>
        acceptPlan(unit, request.body, t),
      ),
  );
}
