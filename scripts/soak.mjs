import { randomUUID } from 'node:crypto';
import { spawnSync } from 'node:child_process';
import { rmSync } from 'node:fs';
import { setTimeout as pause } from 'node:timers/promises';
import { parseArgs } from 'node:util';
import { ensureBuilt } from './lib/build.mjs';
import { ensureDebian, ensurePackages, requireNode } from './lib/install.mjs';
import { Cluster, throwawayFolder } from './lib/postgres.mjs';
import { main, Sorry } from './lib/root.mjs';
import { choosePort, startServer } from './lib/server.mjs';

/** A write that is not answered is sent again with the same key after this, ms. */
const RETRY_MS = 40;
const LONGEST_LIFE_MS = 400;
const WRITERS = 4;
/** Between two notes that are typed into the page, ms. */
const TYPING_MS = 250;
/** What the page has kept while the server was away takes this long to send at most, ms. */
const SENDING_MS = 600_000;

/** A page on the log of a unit that is typed into, whether its server is there or not. */
async function openPage(url) {
  const { chromium } = await import('@playwright/test');
  const browser = await chromium.launch({
    executablePath: spawnSync('sh', ['-c', 'command -v chromium'], { encoding: 'utf8' }).stdout.trim(),
    args: ['--no-sandbox', '--disable-gpu'],
  });
  const page = await browser.newPage();
  await page.goto(url);
  const note = page.getByLabel('Note');
  await note.waitFor();
  return {
    async type(text) {
      await note.fill(text);
      await note.press('Enter');
    },
    saved: () => page.locator('.saving-saving[data-state=saved]').waitFor({ timeout: SENDING_MS }),
    close: () => browser.close(),
  };
}

/** Numbers from 0 to 1 that are the same for the same seed (mulberry32). */
function seeded(seed) {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/**
 * Kills the server again and again while clients and a page write, and counts: whatever was acknowledged, and whatever was
 * typed into the page, must be there, once. `npm run soak -- --rounds 100 --seed 1`
 */
await main(async () => {
  const { values } = parseArgs({
    options: { rounds: { type: 'string', default: '100' }, seed: { type: 'string', default: '1' } },
  });
  const rounds = Number(values.rounds);
  if (!Number.isInteger(rounds) || rounds < 1)
    throw new Sorry(`--rounds ${values.rounds} is no number of rounds.`);
  const random = seeded(Number(values.seed));
  requireNode();
  ensurePackages();
  ensureDebian('chromium', () => spawnSync('chromium', ['--version']).status === 0, 'Chromium');
  ensureBuilt();
  const folder = throwawayFolder();
  const cluster = await Cluster.open({ folder });
  const port = await choosePort(4890);
  const root = `http://127.0.0.1:${port}/api/v1`;
  const open = () => startServer({ databaseUrl: cluster.url, port, demo: 'none' });
  let server = open();
  await server.listening;

  /** Sends until it is answered, as a page does. */
  const write = async (path, body) => {
    const key = randomUUID();
    for (;;) {
      try {
        const answer = await fetch(`${root}${path}`, {
          method: 'POST',
          headers: { 'content-type': 'application/json', 'idempotency-key': key },
          body: JSON.stringify(body),
        });
        if (answer.ok) return answer.json();
        if (answer.status < 500 && answer.status !== 429)
          throw new Sorry(`${path} was refused: ${answer.status} ${await answer.text()}`);
      } catch (error) {
        if (error instanceof Sorry) throw error;
      }
      await pause(RETRY_MS);
    }
  };
  const { unitId } = await write('/units', { name: 'Soaked' });
  const acknowledged = [];
  let isOver = false;
  const page = await openPage(`http://127.0.0.1:${port}/units/${unitId}/log`);
  /** Things that were put on the board, ticks that were made and batches that were sent: each must be there, once. */
  const placed = [];
  const ticked = [];
  await write(`/units/${unitId}/things`, {
    things: [{ at: ['boards', 'b1'], was: null, now: { id: 'b1', style: 'pads', columns: 200, rows: 200 } }],
  });
  const builders = Array.from({ length: 2 }, async (_, builder) => {
    for (let i = 0; !isOver; i += 1) {
      const hole = [builder * 100 + (i % 100), Math.floor(i / 100) % 200];
      const cut = hole.join(',');
      await write(`/units/${unitId}/things`, {
        things: [{ at: ['boards', 'b1', 'cuts', cut], was: null, now: hole }],
      });
      placed.push(cut);
      const id = `soak ${builder}.${i}`;
      const at = new Date().toISOString();
      const tick = { type: 'tick-step', id, words: id, isDone: true, at };
      await write(`/units/${unitId}/batch`, {
        acts: [tick, { type: 'add-note', id: randomUUID(), text: `builder ${id}.` }],
      });
      ticked.push(id);
    }
  });
  const writers = Array.from({ length: WRITERS }, async (_, writer) => {
    for (let i = 0; !isOver; i += 1) {
      const text = `writer ${writer}, note ${i}.`;
      await write(`/units/${unitId}/notes`, { text });
      acknowledged.push(text);
    }
  });
  const typing = (async () => {
    for (let i = 0; !isOver; i += 1) {
      const text = `page, note ${i}.`;
      await page.type(text);
      acknowledged.push(text);
      await pause(TYPING_MS);
    }
    await page.saved();
  })();
  for (let round = 1; round <= rounds; round += 1) {
    await pause(random() * LONGEST_LIFE_MS);
    server.child.kill('SIGKILL');
    await server.exited;
    server = open();
    await server.listening;
    if (round % 10 === 0) process.stdout.write(`${round} kills, ${acknowledged.length} notes acknowledged\n`);
  }
  isOver = true;
  await Promise.all([...writers, ...builders, typing]);
  await page.close();
  const file = await (await fetch(`${root}/units/${unitId}/file`)).json();
  await server.stop();
  await cluster.stop();
  rmSync(folder, { recursive: true, force: true });
  const kept = new Map();
  for (const { kind, summary } of file.log)
    if (kind === 'note') kept.set(summary, (kept.get(summary) ?? 0) + 1);
  const cuts = new Set(file.boards[0].cuts.map((hole) => hole.join(',')));
  const lost = [
    ...acknowledged.filter((text) => !kept.has(text)),
    ...placed.filter((cut) => !cuts.has(cut)),
    ...ticked.filter((id) => !(id in file.bench.ticks)),
  ];
  const doubled = [...kept].filter(([, count]) => count > 1);
  process.stdout.write(
    `${rounds} kills, ${acknowledged.length} notes acknowledged or typed, ${placed.length} cuts, ${ticked.length} batches: ${lost.length} lost, ${doubled.length} doubled\n`,
  );
  if (lost.length + doubled.length > 0) process.exit(1);
});
