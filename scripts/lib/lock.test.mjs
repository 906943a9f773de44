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
  folder = mkdtempSync(join(tmpdir(), 'halfsplit-lock-'));
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

/** A process of its own that does something with the lock. */
function run(code) {
  const child = spawn(process.execPath, ['--input-type=module', '-e', code], {
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  return { child, ended: once(child, 'exit') };
}

describe('a lock file', () => {
  it('is held by one process at a time, however many want it', async () => {
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
      });`;
    await Promise.all(Array.from({ length: 6 }, () => run(code).ended));
    expect(readFileSync(counter, 'utf8')).toBe('30');
    expect(existsSync(lock)).toBe(false);
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
