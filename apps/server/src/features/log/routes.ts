import { createNoteSchema, undoSchema, unitResourceSchema } from '@halfsplit/contract';
import { z } from 'zod';
import type { App } from '../../app.ts';
import { changeUnit } from '../units/access.ts';
import { addNote, undoLast } from './service.ts';

const params = z.object({ unitId: z.uuid() });

export function logRoutes(app: App): void {
  app.post(
    '/units/:unitId/notes',
    {
      schema: {
        tags: ['log'],
        summary: 'Add a note',
        params,
        body: createNoteSchema,
        response: { 201: unitResourceSchema },
      },
    },
    (request, reply) =>
      changeUnit(app.database, request, reply, request.params.unitId, 201, (unit, t) =>
        addNote(unit, request.body.text, t),
      ),
  );
  app.post(
    '/units/:unitId/undo',
    {
      schema: {
        tags: ['log'],
        summary: 'Take back the last step',
        params,
        body: undoSchema,
        response: { 200: unitResourceSchema },
      },
    },
    (request, reply) =>
      changeUnit(app.database, request, reply, request.params.unitId, 200, (unit, t) =>
        undoLast(unit, request.body.baseVersion, t),
      ),
  );
}
