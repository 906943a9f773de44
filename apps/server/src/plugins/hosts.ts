import type { FastifyInstance } from 'fastify';
import { ApiError } from '../errors.ts';

/** Names of this machine for itself. */
const LOOPBACK: readonly string[] = ['localhost', '127.0.0.1', '[::1]'];

/** The name in a Host header or an origin, without its port. */
const nameIn = (host: string): string =>
  host
    .replace(/^[a-z]+:\/\//i, '')
    .replace(/:\d+$/, '')
    .toLowerCase();

/**
 * Refuses requests under a name that is not ours, and those that a page of another place has made: a name that was bound
 * anew to this machine would let a page elsewhere write here.
 *
 * @param hosts further names by which it may be reached, as they are when somebody asks
 */
export function refuseStrangers(app: FastifyInstance, hosts: () => readonly string[]): void {
  const isOwnName = (host: string) => {
    const name = nameIn(host);
    return LOOPBACK.includes(name) || hosts().some((h) => h.toLowerCase() === name);
  };
  app.addHook('onRequest', async (request) => {
    const { host, origin } = request.headers;
    const isOurs = host !== undefined && isOwnName(host);
    const isOwnPage = origin === undefined || (origin !== 'null' && isOwnName(origin));
    if (isOurs && isOwnPage) return;
    throw new ApiError(
      403,
      'stranger',
      'Not from here',
      isOurs
        ? `A page of ${origin} may not write here.`
        : `This bench does not answer to ${host ?? 'no name'}.`,
      'Open it under its own address; "npm start -- --host NAME" adds a name.',
    );
  });
}
