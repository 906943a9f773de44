import { randomUUID } from 'node:crypto';
import { rmSync } from 'node:fs';
import { Agent, request } from 'node:http';
import { text } from 'node:stream/consumers';
import { Cluster, throwawayFolder } from './postgres.mjs';
import { choosePort, startServer } from './server.mjs';

const AGENT = new Agent({ keepAlive: true });
const WRITERS = 20;
const LISTENERS = 200;
const IS_SHORT = process.argv.includes('--short');
/** How long the writers write, each time they are counted, ms. */
const WRITING_MS = IS_SHORT ? 2000 : 10_000;
/** Rounds with and without listeners, in turn: a machine that grows slower meanwhile favours neither. */
const ROUNDS = IS_SHORT ? 1 : 3;

/** Notes a second that 20 writers get acknowledged, alone and with 200 pages that follow them. */
export async function benchLoad() {
  const folder = throwawayFolder();
  const cluster = await Cluster.open({ folder });
  const server = startServer({ databaseUrl: cluster.url, port: await choosePort(4930), demo: 'none' });
  const root = `${await server.listening}/api/v1`;
  try {
    const units = await Promise.all(
      Array.from(
        { length: WRITERS },
        async (_, i) => (await post(`${root}/units`, { name: `Writer ${i}` }, 1 + i)).unitId,
      ),
    );
    const alone = [];
    const followed = [];
    let events = 0;
    for (let round = 0; round < ROUNDS; round += 1) {
      alone.push(await rateOf(root, units));
      const ending = new AbortController();
      await Promise.all(
        Array.from({ length: LISTENERS }, (_, i) =>
          follow(root, units[i % WRITERS], ending.signal, () => (events += 1)),
        ),
      );
      followed.push(await rateOf(root, units));
      ending.abort();
    }
    const [without, withAll] = [middle(alone), middle(followed)];
    return [
      {
        what: `server, ${WRITERS} writers: a note acknowledged`,
        ms: 1000 / without,
        note: `${without.toFixed(0)} a second`,
      },
      {
        what: `server, ${WRITERS} writers and ${LISTENERS} listeners: a note acknowledged`,
        ms: 1000 / withAll,
        note: `${withAll.toFixed(0)} a second, ${((100 * withAll) / without).toFixed(0)} % of alone; ${events} events heard`,
      },
    ];
  } finally {
    await server.stop();
    await cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Sends as one of many machines, each of which may ask only so much a minute. */
const post = (url, body, machine) =>
  new Promise((resolve, reject) => {
    const headers = { 'content-type': 'application/json', 'idempotency-key': randomUUID() };
    const sent = request(url, { method: 'POST', agent: AGENT, localAddress: `127.0.1.${machine}`, headers });
    sent.on('error', reject);
    sent.on('response', async (answer) => {
      const said = await text(answer);
      if (answer.statusCode < 300) resolve(JSON.parse(said));
      else reject(new Error(`${url}: ${answer.statusCode} ${said}`));
    });
    sent.end(JSON.stringify(body));
  });

/** Notes a second, over all writers, each of which waits for its answer. */
async function rateOf(root, units) {
  const end = performance.now() + WRITING_MS;
  const counts = await Promise.all(
    units.map(async (unitId, i) => {
      let count = 0;
      while (performance.now() < end) {
        await post(`${root}/units/${unitId}/notes`, { text: `Note ${count}` }, 1 + i);
        count += 1;
      }
      return count;
    }),
  );
  return counts.reduce((a, b) => a + b, 0) / (WRITING_MS / 1000);
}

/** Follows a unit as a page does; resolves when the stream is open. */
async function follow(root, unitId, signal, onEvent) {
  // From where it stands now, as a page that has just loaded the unit: told by the first write of its own.
  const { sequence } = await post(`${root}/units/${unitId}/notes`, { text: 'A page is opened.' }, 251);
  const answer = await fetch(`${root}/events?units=${unitId}:${sequence}`, { signal });
  const reader = answer.body.getReader();
  void (async () => {
    for (;;) {
      const { done } = await reader.read();
      if (done) return;
      onEvent();
    }
  })().catch(() => undefined);
}

const middle = (numbers) => [...numbers].sort((a, b) => a - b)[Math.floor(numbers.length / 2)];
