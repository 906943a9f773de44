import { writeAnswerSchema } from '@zemble/contract';
import type { Transaction } from 'sequelize';
import { z } from 'zod';
import type { App } from '../../app.ts';
import type { UnitModel } from '../../database/models/index.ts';
import { changeUnit } from './access.ts';

export interface UnitWrite<Body extends z.ZodType, Params extends z.ZodRawShape> {
  readonly method: 'POST' | 'PUT' | 'PATCH';
  /** Below `/units/:unitId`. */
  readonly path: string;
  readonly tag: string;
  readonly summary: string;
  readonly body: Body;
  /** Further parameters of the path. */
  readonly params?: Params;
  readonly status: 200 | 201;
  readonly change: (
    unit: UnitModel,
    request: { readonly body: z.output<Body>; readonly params: z.output<z.ZodObject<Params>> },
    transaction: Transaction,
  ) => Promise<void>;
}

/** A route that writes to one unit: carried out once for its key, answered with what it did. */
export function unitWrite<Body extends z.ZodType, Params extends z.ZodRawShape = Record<never, never>>(
  app: App,
  { method, path, tag, summary, body, params, status, change }: UnitWrite<Body, Params>,
): void {
  app.route({
    method,
    url: `/units/:unitId${path}`,
    schema: {
      tags: [tag],
      summary,
      params: z.object({ unitId: z.uuid(), ...params }),
      body,
      response: { [status]: writeAnswerSchema },
    },
    handler: (request, reply) => {
      const given = {
        body: request.body as z.output<Body>,
        params: z.object(params ?? ({} as Params)).parse(request.params),
      };
      const { unitId } = z.object({ unitId: z.uuid() }).parse(request.params);
      return changeUnit(app.database, request, reply, unitId, status, (unit, t) => change(unit, given, t));
    },
  });
}
