import { amendReadingSchema, createReadingSchema } from '@zemble/contract';
import { z } from 'zod';
import type { App } from '../../app.ts';
import { unitWrite } from '../units/write-route.ts';
import { addReading, amendReading } from './service.ts';

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
  unitWrite(app, {
    method: 'PATCH',
    path: '/readings/:readingId',
    tag: 'readings',
    summary: 'Tell how a part was read: which pin had the red lead, that the controls stood as drawn',
    params: { readingId: z.uuid() },
    body: amendReadingSchema,
    status: 200,
    change: (unit, { body, params }, t) => amendReading(unit, params.readingId, body, t),
  });
}
