import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { tryLock, unlock, withLock } from './lock.mjs';

const LOCK = fileURLToPath(new URL('./lock.mjs', import.meta.url));
let folder;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'zemble-lock-'));
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

/** A process of its own that does something with the lock. */
function run(code, argument = '') {
  const child = spawn(process.execPath, ['--input-type=module', '-e', code, argument], {
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  return { child, ended: once(child, 'exit') };
}

describe('a lock file', () => {
  it.each([
    ['given back', 6, ''],
    // Every second holder ends with the lock in hand; the others have to find that out, one of them first.
    ['left behind by those that ended', 12, 'if (i === 4 && process.argv[1] === "odd") process.exit();'],
  ])('is held by one process at a time, however many want it: %s', async (_how, processes, end) => {
    const [lock, counter] = [join(folder, 'lock'), join(folder, 'count')];
    writeFileSync(counter, '0');
    // Reads, waits and writes: without the lock most of these would be lost.
    const code = `
      import { readFileSync, writeFileSync } from 'node:fs';
      import { setTimeout as pause } from 'node:timers/promises';
      import { withLock } from ${JSON.stringify(LOCK)};
      for (let i = 0; i < 5; i += 1) await withLock(${JSON.stringify(lock)}, async () => {
        const count = Number(readFileSync(${JSON.stringify(counter)}, 'utf8'));
        await pause(3);
        writeFileSync(${JSON.stringify(counter)}, String(count + 1));
        ${end}
      });`;
    await Promise.all(
      Array.from({ length: processes }, (_, i) => run(code, i % 2 === 1 ? 'odd' : 'even').ended),
    );
    expect(readFileSync(counter, 'utf8')).toBe(String(processes * 5));
  });

  it('names who holds it, and is free once that process has ended, however it ended', async () => {
    const lock = join(folder, 'lock');
    const { child, ended } = run(`
      import { tryLock } from ${JSON.stringify(LOCK)};
      tryLock(${JSON.stringify(lock)});
      console.log('held');
      setInterval(() => {}, 1000);`);
    await once(child.stdout, 'data');
    expect(tryLock(lock)).toBe(child.pid);
    child.kill('SIGKILL');
    await ended;
    expect(tryLock(lock)).toBeNull();
    unlock(lock);
  });

  it('is not taken for held by another process that has the number of an old one', () => {
    const lock = join(folder, 'lock');
    // The number of a process that lives, with the start of one that does not.
    writeFileSync(lock, `${process.ppid} 1\n`);
    expect(tryLock(lock)).toBeNull();
    unlock(lock);
  });

  it('is given back when what was done under it fails', async () => {
    const lock = join(folder, 'lock');
    await expect(withLock(lock, () => Promise.reject(new Error('no')))).rejects.toThrow('no');
    expect(existsSync(lock)).toBe(false);
  });
});
