import { ACTS, batchSchema, type ActType } from '@zemble/contract';
import { z } from 'zod';
import type { App } from '../../app.ts';
import { unitWrite } from '../units/write-route.ts';
import { carryOut, carryOutAll, paramOf } from './acts.ts';

/** A route for each act on the record of a unit, and one for several that are one thought. */
export function recordRoutes(app: App): void {
  for (const [name, { route, body }] of Object.entries(ACTS)) {
    const type = name as ActType;
    const param = paramOf(type);
    unitWrite(app, {
      ...route,
      tag: route.path.split('/')[1] ?? 'units',
      ...(param === undefined ? {} : { params: { [param]: z.uuid() } }),
      body: body as z.ZodType,
      change: (unit, given, t) =>
        carryOut(
          type,
          unit,
          given.body as never,
          param === undefined ? '' : String(Reflect.get(given.params, param)),
          t,
        ),
    });
  }
  unitWrite(app, {
    method: 'POST',
    path: '/batch',
    status: 200,
    tag: 'log',
    summary: 'Several acts that are one thought: one step of the log, all of them or none',
    body: batchSchema,
    change: (unit, { body }, t) => carryOutAll(unit, body, t),
  });
}
