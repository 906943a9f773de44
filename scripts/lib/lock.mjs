import { linkSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { setTimeout as pause } from 'node:timers/promises';

/** When a process was started, in the system's ticks; empty where the system does not say. A number of old is not mistaken. */
function startOf(pid) {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
    return stat.slice(stat.lastIndexOf(')') + 2).split(' ')[19];
  } catch {
    return '';
  }
}

/** Whether a process of that number lives. */
export function isAlive(pid) {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return error.code === 'EPERM';
  }
}

/** Who holds a lock: `{ pid }` of a process that lives, or null. */
function holderOf(file) {
  let text;
  try {
    text = readFileSync(file, 'utf8').trim();
  } catch {
    return null;
  }
  const [pid, start = ''] = text.split(' ');
  const number = Number(pid);
  const lives = Number.isInteger(number) && number > 0 && isAlive(number) && start === startOf(number);
  return { text, pid: lives ? number : 0 };
}

/** Puts a file there with its text in one step, so that nobody finds it empty; false where one is there. */
function putNew(file, text) {
  const own = `${file}.${process.pid}`;
  writeFileSync(own, text, { mode: 0o600 });
  try {
    linkSync(own, file);
    return true;
  } catch (error) {
    if (error.code !== 'EEXIST') throw error;
    return false;
  } finally {
    rmSync(own, { force: true });
  }
}

/** Removes the lock of a process that ended. One at a time does so: another may have put its own there since we looked. */
function removeOld(file, text) {
  const guard = `${file}.old`;
  if (tryLock(guard) !== null) return;
  try {
    if (holderOf(file)?.text === text) rmSync(file, { force: true });
  } finally {
    unlock(guard);
  }
}

/**
 * Takes a lock file for this process: one process holds it, and one that ended without giving it back holds it no more.
 *
 * @returns the number of the process that holds it, or null where it is ours now
 */
export function tryLock(file) {
  for (;;) {
    if (putNew(file, `${process.pid} ${startOf(process.pid)}\n`)) return null;
    const holder = holderOf(file);
    if (holder && holder.pid > 0) return holder.pid === process.pid ? null : holder.pid;
    if (holder) removeOld(file, holder.text);
  }
}

export const unlock = (file) => rmSync(file, { force: true });

const LOOK_AGAIN_MS = 100;

/** Does something while no other process that asks so does it. */
export async function withLock(file, work) {
  while (tryLock(file) !== null) await pause(LOOK_AGAIN_MS);
  try {
    return await work();
  } finally {
    unlock(file);
  }
}
