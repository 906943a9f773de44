import { acceptPlanSchema } from '@halfsplit/contract';
import type { App } from '../../app.ts';
import { unitWrite } from '../units/write-route.ts';
import { acceptPlan } from './service.ts';

export function planRoutes(app: App): void {
  unitWrite(app, {
    method: 'POST',
    path: '/plan',
    tag: 'plan',
    summary: 'Accept planned values',
    body: acceptPlanSchema,
    status: 200,
    change: (unit, { body }, t) => acceptPlan(unit, body, t),
  });
}
