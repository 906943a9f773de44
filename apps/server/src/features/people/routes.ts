import {
  newPassphraseSchema,
  newPersonSchema,
  pairingSchema,
  peopleSchema,
  personSchema,
  redeemSchema,
  sessionSchema,
  signInSchema,
  type Session,
} from '@zemble/contract';
import type { FastifyReply, FastifyRequest } from 'fastify';
import { z } from 'zod';
import type { App } from '../../app.ts';
import { ApiError } from '../../errors.ts';
import { namesOnNetwork } from './addresses.ts';
import { giveToken, takeToken, tokenOf } from './guard.ts';
import { allPeople, endSession, endSessions, isAnybodyKnown } from './repository.ts';
import {
  addPerson,
  beginWith,
  changePassphrase,
  offerPairing,
  personResource,
  redeemPairing,
  removePerson,
  signIn,
} from './service.ts';

const LOOPBACK = new Set(['127.0.0.1', '::1', '::ffff:127.0.0.1']);
const isHere = (request: FastifyRequest) => LOOPBACK.has(request.ip);

/** Where nobody is asked for a name, only that is said. */
export function openBenchRoutes(app: App): void {
  app.get('/session', { schema: { response: { 200: sessionSchema }, tags: ['people'] } }, (): Session => ({
    state: 'open',
  }));
}

/** Signing in and out, people, and pairing of devices. */
export function peopleRoutes(app: App): void {
  const { database } = app;
  const config = { isPublic: true };
  const done = z.object({ ok: z.literal(true) });
  const ok = { ok: true } as const;
  const tags = ['people'];

  const addresses = (): string[] => {
    const bound = app.server.address();
    const port = bound !== null && typeof bound === 'object' ? bound.port : 80;
    return namesOnNetwork().map((name) => `http://${name}:${port}`);
  };
  const answerSignedIn = (
    request: FastifyRequest,
    reply: FastifyReply,
    { token, person }: Awaited<ReturnType<typeof signIn>>,
  ): Session => {
    giveToken(request, reply, token);
    return { state: 'signed-in', person: personResource(person), addresses: addresses() };
  };

  app.get(
    '/session',
    { config, schema: { tags, summary: 'Who asks', response: { 200: sessionSchema } } },
    async (request): Promise<Session> => {
      const { person } = request;
      if (person) return { state: 'signed-in', person: personResource(person), addresses: addresses() };
      if (await isAnybodyKnown()) return { state: 'signed-out' };
      return { state: 'first', mayBegin: isHere(request) };
    },
  );
  app.post(
    '/session',
    { config, schema: { tags, summary: 'Sign in', body: signInSchema, response: { 200: sessionSchema } } },
    async (request, reply) => {
      const { name, passphrase } = request.body;
      return answerSignedIn(request, reply, await signIn(database, name, passphrase, request.ip));
    },
  );
  app.post(
    '/session/end',
    {
      schema: {
        tags,
        summary: 'Sign out, here or on every device',
        body: z.object({ everywhere: z.boolean().default(false) }),
        response: { 200: done },
      },
    },
    async (request, reply) => {
      if (request.body.everywhere) await endSessions(request.person!.id);
      else await endSession(tokenOf(request));
      takeToken(reply);
      return ok;
    },
  );
  app.post(
    '/people/first',
    {
      config,
      schema: { tags, summary: 'Name the owner', body: newPersonSchema, response: { 200: sessionSchema } },
    },
    async (request, reply) => {
      if (!isHere(request))
        throw new ApiError(
          'not-here',
          'The first person is named on the machine of the bench itself.',
          'Open the page there, under localhost.',
        );
      const { name, passphrase } = request.body;
      return answerSignedIn(request, reply, await beginWith(database, name, passphrase));
    },
  );
  app.get(
    '/people',
    { schema: { tags, summary: 'Everybody at this bench', response: { 200: peopleSchema } } },
    async () => ({ people: (await allPeople()).map(personResource) }),
  );
  app.post(
    '/people',
    { schema: { tags, summary: 'Add a person', body: newPersonSchema, response: { 201: personSchema } } },
    async (request, reply) => {
      const { name, passphrase } = request.body;
      void reply.status(201);
      return personResource(await addPerson(database, request.person!, name, passphrase));
    },
  );
  const params = z.object({ personId: z.uuid() });
  app.post(
    '/people/:personId/remove',
    { schema: { tags, summary: 'Remove a person', params, response: { 200: done } } },
    async (request) => {
      await removePerson(request.person!, request.params.personId);
      return ok;
    },
  );
  app.post(
    '/people/:personId/passphrase',
    {
      schema: {
        tags,
        summary: 'Set a passphrase anew',
        params,
        body: newPassphraseSchema,
        response: { 200: done },
      },
    },
    async (request) => {
      const { person, params: at, body } = request;
      await changePassphrase(database, person!, at.personId, body, tokenOf(request));
      return ok;
    },
  );
  app.post(
    '/pairings',
    { schema: { tags, summary: 'A code for one more device', response: { 201: pairingSchema } } },
    async (request, reply) => {
      void reply.status(201);
      return offerPairing(request.person!.id);
    },
  );
  app.post(
    '/pairings/redeem',
    {
      config,
      schema: {
        tags,
        summary: 'Let a device in by a code',
        body: redeemSchema,
        response: { 200: sessionSchema },
      },
    },
    async (request, reply) =>
      answerSignedIn(request, reply, await redeemPairing(database, request.body.code, request.ip)),
  );
}
