import {
  createUnitSchema,
  importUnitSchema,
  repairHistorySchema,
  unitListQuerySchema,
  unitListSchema,
  unitResourceSchema,
  writeAnswerSchema,
} from '@zemble/contract';
import { writeReadingsCsv } from '@zemble/core';
import { z } from 'zod';
import type { App } from '../../app.ts';
import { notFound } from '../../errors.ts';
import { createUnitOnce, unitAtOneMoment } from './access.ts';
import { listUnits, repairHistory } from './repository.ts';
import { createUnit } from './service.ts';
import { exportUnit, insertDocument, readyFile } from './unit-file.ts';

const params = z.object({ unitId: z.uuid() });

export function unitRoutes(app: App): void {
  app.get(
    '/units',
    {
      schema: {
        tags: ['units'],
        summary: 'Units, those that were worked on last first',
        querystring: unitListQuerySchema,
        response: { 200: unitListSchema },
      },
    },
    (request) => listUnits(app.database, request.query),
  );
  app.get(
    '/repairs',
    {
      schema: {
        tags: ['units'],
        summary: 'How often each kind of block was the culprit',
        response: { 200: repairHistorySchema },
      },
    },
    async () => ({ kinds: await repairHistory(app.database) }),
  );
  app.get(
    '/units/:unitId',
    {
      schema: {
        tags: ['units'],
        summary: 'One unit with all that belongs to it',
        params,
        response: { 200: unitResourceSchema },
      },
    },
    (request) => unitAtOneMoment(app.database, request.params.unitId),
  );
  app.post(
    '/units',
    {
      schema: {
        tags: ['units'],
        summary: 'Put a new unit on the bench',
        body: createUnitSchema,
        response: { 201: writeAnswerSchema },
      },
    },
    (request, reply) => createUnitOnce(app.database, request, reply, (t) => createUnit(request.body, t)),
  );
  app.post(
    '/units/import',
    {
      // A picture or another file is told apart from a unit by the reader, whatever it holds.
      config: { holdsFile: true },
      schema: {
        tags: ['units'],
        summary: 'Open a unit file',
        body: importUnitSchema,
        response: { 201: writeAnswerSchema },
      },
    },
    async (request, reply) => {
      const { text, id } = request.body;
      const ready = await readyFile(text);
      return createUnitOnce(app.database, request, reply, (t) => insertDocument(ready, t, { id }));
    },
  );
  app.get(
    '/units/:unitId/readings.csv',
    { schema: { tags: ['readings'], summary: 'Every reading of parts as a table', params } },
    async (request, reply) => {
      const unit = await unitAtOneMoment(app.database, request.params.unitId);
      void reply.header('content-disposition', 'attachment; filename="readings.csv"');
      return reply.type('text/csv; charset=utf-8').send(writeReadingsCsv(unit));
    },
  );
  app.get(
    '/units/:unitId/file',
    { schema: { tags: ['units'], summary: 'The unit as a unit file', params } },
    async (request, reply) => {
      const file = await exportUnit(app.database, request.params.unitId);
      if (!file) throw notFound('unit', request.params.unitId);
      const name =
        file.name
          .toLowerCase()
          .replace(/[^a-z0-9]+/g, '-')
          .replace(/^-|-$/g, '') || 'unit';
      void reply.header('content-disposition', `attachment; filename="${name}.zemble.json"`);
      return reply.type('application/json; charset=utf-8').send(file.text);
    },
  );
}
