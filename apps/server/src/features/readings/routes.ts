import { createReadingSchema } from '@halfsplit/contract';
import type { App } from '../../app.ts';
import { unitWrite } from '../units/write-route.ts';
import { addReading } from './service.ts';

export function readingRoutes(app: App): void {
  unitWrite(app, {
    method: 'POST',
    path: '/readings',
    tag: 'readings',
    summary: 'Add a reading of a part or a readout',
    body: createReadingSchema,
    status: 201,
    change: (unit, { body }, t) => addReading(unit, body, t),
  });
}
