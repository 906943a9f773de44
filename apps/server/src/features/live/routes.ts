import { z } from 'zod';
import { findUnit } from '../units/repository.ts';
import type { App } from '../../app.ts';

/** Tells an open page at once when its unit was changed in another. */
export function liveRoutes(app: App): void {
  app.get(
    '/units/:unitId/events',
    {
      sse: { kind: 'only' },
      schema: {
        tags: ['units'],
        summary: 'Versions of a unit as they come (server-sent events)',
        params: z.object({ unitId: z.uuid() }),
      },
    },
    async (request, reply) => {
      const gone = new AbortController();
      reply.raw.on('close', () => gone.abort());
      const { unitId } = request.params;
      const versions = app.changes.follow(unitId, gone.signal);
      // Listening begins before the version is read: what happens in between is not missed.
      const next = versions.next();
      await reply.sse.send({ event: 'open', data: {} });
      const unit = await findUnit(unitId);
      if (unit) await reply.sse.send({ event: 'version', data: { version: unit.version } });
      for (let step = await next; !step.done; step = await versions.next())
        await reply.sse.send({ event: 'version', data: { version: step.value } });
    },
  );
}
