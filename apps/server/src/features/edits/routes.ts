import type { StreamEvent } from '@zemble/contract';
import type { FastifyReply, FastifyRequest } from 'fastify';
import { z } from 'zod';
import type { App } from '../../app.ts';
import { invalid, notFound } from '../../errors.ts';
import { isStillIn } from '../people/guard.ts';
import type { EditsFeed } from './feed.ts';
import { editsAfter, sequenceOf } from './repository.ts';

/** Units that one stream may follow. */
const MOST_FOLLOWED = 50;
const PLACE = /^([0-9a-f-]{36})(?:[:@](\d{1,9}))?$/;

/** Where a follower stands: how many edits of each unit it has. */
type Places = Map<string, number>;

/** Places from text as `id:12 id:7`, as the stream's own ids are; undefined sequences are filled in later. */
function placesFrom(text: string): ReadonlyMap<string, number | undefined> {
  const words = text.split(/[\s,]+/).filter(Boolean);
  const places = words.map((word) => PLACE.exec(word));
  if (places.some((p) => !p) || places.length === 0 || places.length > MOST_FOLLOWED)
    throw invalid(
      `"${text.slice(0, 80)}" names no units to follow.`,
      `Give one to ${MOST_FOLLOWED} ids with commas between them, each with ":sequence" where edits are known already.`,
    );
  return new Map(places.map((p) => [p![1]!, p![2] === undefined ? undefined : Number(p![2])]));
}

/** Streams of edits, so that every open page sees at once what another did, in this process or in another. */
export function editRoutes(app: App): void {
  app.get(
    '/units/:unitId/events',
    {
      sse: { kind: 'only' },
      schema: {
        tags: ['units'],
        summary: 'Edits of a unit as they come (server-sent events); reads on after Last-Event-ID',
        params: z.object({ unitId: z.uuid() }),
      },
    },
    async (request, reply) => {
      const { unitId } = request.params;
      const last = /^(?:[0-9a-f-]{36}:)?(\d{1,9})$/.exec(String(request.headers['last-event-id'] ?? ''))?.[1];
      if ((await sequenceOf(unitId)) === null) throw notFound('unit', unitId);
      const places = await knownPlaces(new Map([[unitId, last === undefined ? undefined : Number(last)]]));
      await stream(app, request, reply, places);
    },
  );
  app.get(
    '/events',
    {
      sse: { kind: 'only' },
      schema: {
        tags: ['units'],
        summary: 'Edits of several units in one stream (server-sent events); reads on after Last-Event-ID',
        querystring: z.object({ units: z.string().max(4000) }),
      },
    },
    async (request, reply) => {
      const wanted = placesFrom(request.query.units);
      const last = String(request.headers['last-event-id'] ?? '');
      const resumed = last === '' ? wanted : new Map([...wanted, ...placesFrom(last)]);
      const places = await knownPlaces(new Map([...resumed].filter(([id]) => wanted.has(id))));
      await stream(app, request, reply, places);
    },
  );
}

/**
 * The units that there are, each where its follower stands, or at its end. One that a page says to have nothing of yet may be
 * on its way from that page: it is waited for.
 */
async function knownPlaces(wanted: ReadonlyMap<string, number | undefined>): Promise<Places> {
  const known = await Promise.all(
    [...wanted].map(async ([id, at]) => [id, at, await sequenceOf(id)] as const),
  );
  return new Map(
    known.flatMap(([id, at, end]) => {
      if (end === null) return at === 0 ? [[id, 0] as const] : [];
      return [[id, Math.min(at ?? end, end)] as const];
    }),
  );
}

/** Sends what each unit has beyond its place, then what comes, until the follower goes or the server ends. */
async function stream(app: App, request: FastifyRequest, reply: FastifyReply, places: Places): Promise<void> {
  const gone = new AbortController();
  reply.raw.on('close', () => gone.abort());
  const ids = new Set(places.keys());
  const told = app.feed.follow(ids, gone.signal);
  // Listening begins before the record is read: what happens in between is not missed.
  const next = told.next();
  const send = async (event: 'open' | 'edits', data: object) => {
    // Whoever went while the news was fetched is not told, and will ask again from where it stands.
    if (!reply.sse.isConnected) return gone.abort();
    await reply.sse.send({ event, data, id: [...places].map(([id, at]) => `${id}:${at}`).join(' ') });
  };
  await send('open', Object.fromEntries(places));
  const catchUp = async (unitIds: Iterable<string>) => {
    for (const unitId of unitIds) {
      const news = await newsOf(app.feed, unitId, places.get(unitId)!);
      if (!news) continue;
      places.set(unitId, 'edits' in news ? news.edits.at(-1)!.sequence : news.sequence);
      await send('edits', news);
    }
  };
  await catchUp(ids);
  for (let step = await next; !step.done; step = await told.next()) {
    if (!(await isStillIn(request))) return;
    await catchUp(step.value);
  }
}

/**
 * Edits that are being read: whoever stands at the same place of a unit is handed the same ones. A reading that began before the
 * newest notice is joined by nobody, since it may be without what that tells of.
 */
const reading = new Map<string, ReturnType<typeof editsAfter>>();
function editsForAll({ notices }: EditsFeed, unitId: string, after: number): ReturnType<typeof editsAfter> {
  const place = `${notices} ${unitId}:${after}`;
  const known = reading.get(place);
  if (known) return known;
  const read = editsAfter(unitId, after);
  reading.set(place, read);
  const forget = () => setImmediate(() => reading.delete(place));
  read.then(forget, forget);
  return read;
}

async function newsOf(feed: EditsFeed, unitId: string, after: number): Promise<StreamEvent | null> {
  const edits = await editsForAll(feed, unitId, after);
  if (edits && edits.length > 0) return { unitId, edits };
  if (edits) return null;
  const sequence = await sequenceOf(unitId);
  return sequence === null || sequence <= after ? null : { unitId, reload: true, sequence };
}
