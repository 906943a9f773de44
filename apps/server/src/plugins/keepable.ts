import { unkeepableIn } from '@zemble/contract';
import type { FastifyInstance } from 'fastify';
import { invalid } from '../errors.ts';

declare module 'fastify' {
  interface FastifyContextConfig {
    /** True where the body holds a file as text, whose reader says what is wrong with it. */
    readonly holdsFile?: boolean;
  }
}

/** Refuses text that the database cannot hold, saying where it is, before anything is written or looked for. */
export function refuseUnkeepable(app: FastifyInstance): void {
  app.addHook('preValidation', async (request) => {
    const isFile = request.routeOptions.config.holdsFile === true || request.isMultipart();
    const wrong = unkeepableIn(request.query) ?? (isFile ? null : unkeepableIn(request.body));
    if (!wrong) return;
    const where = wrong.path.join('.') || 'the request';
    throw invalid(`${where}: ${wrong.sentence}.`, 'Take that out and try again.', [
      { where, message: wrong.sentence },
    ]);
  });
}
