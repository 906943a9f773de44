import { z } from 'zod';
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
      await reply.sse.send({ event: 'open', data: {} });
      for await (const version of app.changes.follow(request.params.unitId, gone.signal))
        await reply.sse.send({ event: 'version', data: { version } });
    },
  );
}
