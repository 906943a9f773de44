import {
  addStockSchema,
  changeStockSchema,
  plainAnswerSchema,
  drawerSchema,
  needsSchema,
  putOutSchema,
  removeStockSchema,
} from '@zemble/contract';
import { z } from 'zod';
import type { App } from '../../app.ts';
import { AtATime } from '../../at-a-time.ts';
import { notFound } from '../../errors.ts';
import { lockUnit } from '../units/repository.ts';
import { allStock } from './repository.ts';
import { addToDrawer, changeItem, needsOfBench, putOut, removeItem, stockRow } from './service.ts';

/** What needs the whole bench is worked out for few at a time. */
const needs = new AtATime(2, 20);

/** The drawer belongs to the workshop, not to a unit. */
export function drawerRoutes(app: App): void {
  const { database } = app;
  const tags = ['drawer'];
  const ok = { ok: true } as const;
  const params = z.object({ itemId: z.uuid() });

  app.get(
    '/drawer',
    { schema: { tags, summary: 'What the workshop has', response: { 200: drawerSchema } } },
    async () => ({ items: (await allStock()).map(stockRow) }),
  );
  app.get(
    '/drawer/needs',
    {
      schema: {
        tags,
        summary: 'What planned changes need, and what came out of units',
        response: { 200: needsSchema },
      },
    },
    () => needs.run(() => needsOfBench(database)),
  );
  app.post(
    '/drawer/items',
    {
      schema: { tags, summary: 'Put items in', body: addStockSchema, response: { 200: plainAnswerSchema } },
    },
    async (request) => {
      await database.transaction((t) => addToDrawer(request.body.items, t));
      return ok;
    },
  );
  app.post(
    '/drawer/items/:itemId',
    {
      schema: {
        tags,
        summary: 'Change an item',
        params,
        body: changeStockSchema,
        response: { 200: plainAnswerSchema },
      },
    },
    async (request) => {
      const { version, item } = request.body;
      await database.transaction((t) => changeItem(request.params.itemId, version, item, t));
      return ok;
    },
  );
  app.post(
    '/drawer/items/:itemId/remove',
    {
      schema: {
        tags,
        summary: 'Take an item out',
        params,
        body: removeStockSchema,
        response: { 200: plainAnswerSchema },
      },
    },
    async (request) => {
      await database.transaction((t) => removeItem(request.params.itemId, request.body.version, t));
      return ok;
    },
  );
  app.post(
    '/drawer/out',
    {
      schema: {
        tags,
        summary: 'Keep a part that came out of a unit, or say it was thrown away',
        body: putOutSchema,
        response: { 200: plainAnswerSchema },
      },
    },
    async (request) => {
      const { unitId, ...out } = request.body;
      await database.transaction(async (t) => {
        const unit = await lockUnit(unitId, t);
        if (!unit) throw notFound('unit', unitId);
        await putOut(unit, out, t);
      });
      return ok;
    },
  );
}
