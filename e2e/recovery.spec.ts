import type { UnitResource, WriteAnswer } from '@zemble/contract';
import { expect, test } from '@playwright/test';
import { spawn, type ChildProcess } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { once } from 'node:events';
import { existsSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
// @ts-expect-error the scripts are plain JavaScript, so that they run before anything is installed
import { throwawayFolder } from '../scripts/lib/postgres.mjs';

const START = fileURLToPath(new URL('../scripts/start.mjs', import.meta.url));
const PORT = '4960';

interface Running {
  readonly child: ChildProcess;
  readonly url: string;
  readonly ended: Promise<number | null>;
}

/** Starts everything on a data folder as a user does, and waits for the address. */
async function start(folder: string): Promise<Running> {
  const child = spawn(process.execPath, [START, '--data', folder, '--port', PORT, '--no-demo'], {
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  // What outlives a killed start keeps the pipes open: its end is told by its exit, not by theirs.
  const ended = once(child, 'exit').then(([code]) => code as number | null);
  let said = '';
  const address = new Promise<string>((resolve) => {
    for (const stream of [child.stdout!, child.stderr!])
      stream.on('data', (chunk: Buffer) => {
        said += chunk.toString();
        const url = /Zemble is at (\S+)/.exec(said)?.[1];
        if (url) resolve(url);
      });
  });
  const url = await Promise.race([
    address,
    ended.then((code) => {
      throw new Error(`It did not start (exit ${code}): ${said}`);
    }),
  ]);
  return { child, url, ended };
}

async function call<T>(url: string, path: string, body?: object): Promise<T> {
  const answer = await fetch(`${url}/api/v1${path}`, {
    ...(body && { method: 'POST', body: JSON.stringify(body) }),
    headers: { 'content-type': 'application/json', 'idempotency-key': randomUUID() },
  });
  expect(answer.ok, `${path}: ${answer.status}`).toBe(true);
  return (await answer.json()) as T;
}

const databaseProcess = (folder: string) =>
  Number(readFileSync(join(folder, 'pg', 'postmaster.pid'), 'utf8').split('\n')[0]);

test('what was acknowledged outlives kill -9 of the database and of the start command', async () => {
  test.setTimeout(180_000);
  const folder: string = throwawayFolder();
  const notes: string[] = [];
  let run = await start(folder);
  try {
    const { unitId: id } = await call<WriteAnswer>(run.url, '/units', { name: 'Survivor' });
    const write = async (text: string) => {
      await call<WriteAnswer>(run.url, `/units/${id}/notes`, { text });
      notes.push(text);
    };
    const kept = async () => {
      const { log } = await call<UnitResource>(run.url, `/units/${id}`);
      const said = log.map((l) => l.summary);
      for (const text of notes) expect(said.filter((s) => s.includes(text))).toHaveLength(1);
    };

    await write('before the database is killed');
    process.kill(databaseProcess(folder), 'SIGKILL');
    expect(await run.ended).toBe(1);
    run = await start(folder);
    await kept();

    await write('before the start command is killed');
    run.child.kill('SIGKILL');
    await run.ended;
    run = await start(folder);
    await kept();

    // Ctrl-C leaves nothing behind, and nothing is lost by it either.
    await write('before Ctrl-C');
    run.child.kill('SIGINT');
    expect(await run.ended).toBe(0);
    expect(existsSync(join(folder, 'pg', 'postmaster.pid'))).toBe(false);
    run = await start(folder);
    await kept();
  } finally {
    run.child.kill('SIGINT');
    await run.ended;
    rmSync(folder, { recursive: true, force: true });
  }
});
