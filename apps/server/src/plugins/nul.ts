import { nulAt, NUL_SENTENCE } from '@halfsplit/contract';
import type { FastifyInstance } from 'fastify';
import { invalid } from '../errors.ts';

declare module 'fastify' {
  interface FastifyContextConfig {
    /** True where the body holds a file as text, whose reader says what is wrong with it. */
    readonly holdsFile?: boolean;
  }
}

/** Refuses text that the database cannot hold, saying where it is, before anything is written. */
export function refuseNul(app: FastifyInstance): void {
  app.addHook('preValidation', async (request) => {
    if (request.routeOptions.config.holdsFile === true || request.isMultipart()) return;
    const path = nulAt(request.body);
    if (!path) return;
    const where = path.join('.') || 'the request';
    throw invalid(`${where}: ${NUL_SENTENCE}.`, 'Take the character out and try again.', [
      { where, message: NUL_SENTENCE },
    ]);
  });
}
