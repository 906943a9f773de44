import cookie from '@fastify/cookie';
import { FORMER_NAME } from '@zemble/contract';
import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';
import type { PersonModel } from '../../database/models/index.ts';
import { ApiError } from '../../errors.ts';
import { personOf } from './repository.ts';

declare module 'fastify' {
  interface FastifyContextConfig {
    /** True where nobody has to be signed in. */
    readonly isPublic?: boolean;
  }
  interface FastifyRequest {
    /** Who asks; null where people have no names here, or nobody is signed in. */
    person: PersonModel | null;
  }
}

const COOKIE = 'zemble_session';
/** Where a device that signed in under the former name keeps its token. */
const FORMER_COOKIE = `${FORMER_NAME}_session`;
const YEAR_S = 365 * 24 * 3600;

/** The device's token, empty where it has none. */
export const tokenOf = (request: FastifyRequest): string =>
  request.cookies[COOKIE] ?? request.cookies[FORMER_COOKIE] ?? '';

/** Whether whoever began a request is still signed in: a stream ends when its device is signed out. */
export const isStillIn = async (request: FastifyRequest): Promise<boolean> =>
  request.person === null || (await personOf(tokenOf(request))) !== null;

/** Signs the device in: no script can read the cookie, and no page elsewhere has it sent. */
export function giveToken(request: FastifyRequest, reply: FastifyReply, token: string): void {
  void reply.setCookie(COOKIE, token, {
    path: '/',
    httpOnly: true,
    sameSite: 'strict',
    secure: request.protocol === 'https',
    maxAge: YEAR_S,
  });
}

export const takeToken = (reply: FastifyReply): void =>
  void reply.clearCookie(COOKIE, { path: '/' }).clearCookie(FORMER_COOKIE, { path: '/' });

/** Reads who asks from the device's cookie, and signs devices in and out by it. */
export async function knowPeople(app: FastifyInstance): Promise<void> {
  await app.register(cookie);
  app.decorateRequest('person', null);
}

/**
 * Asks everybody who wants something of these routes who they are. It stands inside the API, on the routes themselves: whatever
 * way an address is spelt, the route that it leads to decides, and one that does not say that it is public is closed.
 */
export function askForNames(api: FastifyInstance): void {
  api.addHook('onRequest', async (request) => {
    const token = tokenOf(request);
    if (token !== '') request.person = await personOf(token);
    if (request.person || request.routeOptions.config.isPublic === true) return;
    throw new ApiError(
      'signed-out',
      'Nobody is signed in on this device.',
      'Sign in; what you entered is kept here until then.',
    );
  });
}
