import { tickSchema } from '@zemble/contract';
import type { App } from '../../app.ts';
import { unitWrite } from '../units/write-route.ts';
import { tickStep } from './service.ts';

export function tickRoutes(app: App): void {
  unitWrite(app, {
    method: 'PUT',
    path: '/ticks',
    tag: 'ticks',
    summary: 'Tick a step of the bench work that belongs to no change, or take its tick back',
    body: tickSchema,
    status: 200,
    change: (unit, { body }, t) => tickStep(unit, body, t),
  });
}
