import type { FastifyInstance } from 'fastify';
import { ApiError } from '../errors.ts';

/** Names of this machine for itself. */
const LOOPBACK: readonly string[] = ['localhost', '127.0.0.1', '[::1]'];

/** The name in a Host header, without its port. */
const nameIn = (host: string): string => host.replace(/:\d+$/, '').toLowerCase();

/** Name and port of a page's origin; nothing for one that is none, as of a file. */
function hostOfOrigin(origin: string): { readonly host: string; readonly isUsualPort: boolean } | null {
  if (!URL.canParse(origin)) return null;
  const { protocol, host, port } = new URL(origin);
  return /^https?:$/.test(protocol) ? { host, isUsualPort: port === '' } : null;
}

/**
 * Refuses requests under a name that is not ours, and those that a page of another place has made: a name that was bound
 * anew to this machine would let a page elsewhere write here, and so would a page under another port of this one.
 *
 * @param hosts further names by which it may be reached, as they are when somebody asks
 */
export function refuseStrangers(app: FastifyInstance, hosts: () => readonly string[]): void {
  const isAdded = (name: string) => hosts().some((h) => h.toLowerCase() === name);
  const isOwnName = (host: string) => LOOPBACK.includes(nameIn(host)) || isAdded(nameIn(host));
  /** The page's own address: the very host and port that it asks, or, behind a proxy, an added name under its usual port. */
  const isOwnPage = (origin: string, host: string) => {
    const page = hostOfOrigin(origin);
    return page !== null && (page.host === host.toLowerCase() || (page.isUsualPort && isAdded(page.host)));
  };
  app.addHook('onRequest', async (request) => {
    const { host, origin } = request.headers;
    if (host === undefined || !isOwnName(host))
      throw stranger(`This bench does not answer to ${host ?? 'no name'}.`);
    if (origin !== undefined && !isOwnPage(origin, host))
      throw stranger(`A page of ${origin} may not write here.`);
  });
}

/**
 * Refuses what a page elsewhere has a browser ask for, as a picture or a script: it reads nothing of the answer, but has it
 * made. Programs do not say where they ask from, and are not refused.
 */
export function refuseOtherPages(api: FastifyInstance): void {
  api.addHook('onRequest', async ({ headers }) => {
    const site = headers['sec-fetch-site'];
    if (site === 'cross-site' || site === 'same-site')
      throw stranger('A page of another place may not ask for this.');
  });
}

const stranger = (detail: string): ApiError =>
  new ApiError('stranger', detail, 'Open it under its own address; "npm start -- --host NAME" adds a name.');
