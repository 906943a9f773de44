import { createNoteSchema, undoSchema } from '@zemble/contract';
import type { App } from '../../app.ts';
import { unitWrite } from '../units/write-route.ts';
import { addNote, undoStep } from './service.ts';

export function logRoutes(app: App): void {
  unitWrite(app, {
    method: 'POST',
    path: '/notes',
    tag: 'log',
    summary: 'Add a note',
    body: createNoteSchema,
    status: 201,
    change: (unit, { body }, t) => addNote(unit, body.text, t),
  });
  unitWrite(app, {
    method: 'POST',
    path: '/undo',
    tag: 'log',
    summary: 'Take back a step',
    body: undoSchema,
    status: 200,
    change: (unit, { body }, t) => undoStep(unit, body.sequence, t),
  });
}
