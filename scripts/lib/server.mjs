import { fork } from 'node:child_process';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { ROOT, Sorry } from './root.mjs';

const START_TIMEOUT_MS = 30_000;

const isFree = (port) =>
  new Promise((resolve) => {
    const probe = createServer();
    probe.once('error', () => resolve(false));
    probe.listen(port, '127.0.0.1', () => probe.close(() => resolve(true)));
  });

/** The wished port, or the next free one above it. */
export async function choosePort(wished) {
  for (let port = wished; port < wished + 100; port += 1) if (await isFree(port)) return port;
  throw new Sorry(`No port from ${wished} to ${wished + 99} is free.`);
}

/**
 * The built server as a child process; resolves to its address when it listens. `demo` is first, none or reset; `hosts` are
 * further names for it; `lan` opens it to other machines; `folder` is where it keeps its log and daily copies; `webRoot` has the
 * built page, where that is not the one of this folder.
 */
export function startServer({
  databaseUrl,
  port,
  demo,
  hosts = [],
  lan = false,
  folder,
  restore,
  leaveOut,
  letIn,
  webRoot = join(ROOT, 'apps/web/dist'),
}) {
  const child = fork(join(ROOT, 'apps/server/dist/main.js'), {
    cwd: ROOT,
    env: {
      ...process.env,
      NODE_ENV: 'production',
      ZEMBLE_DATABASE_URL: databaseUrl,
      ZEMBLE_PORT: String(port),
      ZEMBLE_DEMO: demo,
      ZEMBLE_HOSTS: hosts.join(','),
      ...(lan ? { ZEMBLE_LAN: 'yes' } : {}),
      ...(folder ? { ZEMBLE_COPIES: join(folder, 'copies'), ZEMBLE_LOG: join(folder, 'server.log') } : {}),
      ...(restore ? { ZEMBLE_RESTORE: restore } : {}),
      ...(leaveOut ? { ZEMBLE_LEAVE_OUT: 'yes' } : {}),
      ...(letIn ? { ZEMBLE_LET_IN: letIn } : {}),
      ZEMBLE_WEB_ROOT: webRoot,
    },
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    // Ctrl-C reaches the whole group; the start command decides the order of stopping.
    detached: true,
  });
  const exited = new Promise((resolve) => child.once('exit', resolve));
  const started = new Promise((resolve, reject) => {
    const timer = setTimeout(() => reject(new Sorry('The server did not start in time.')), START_TIMEOUT_MS);
    child.once('message', (message) => {
      clearTimeout(timer);
      resolve(message);
    });
    child.once('exit', (code) => {
      clearTimeout(timer);
      reject(new Sorry(`The server stopped while starting (exit ${code}); its message is above.`));
    });
  });
  const stop = async () => {
    if (child.exitCode === null && child.signalCode === null) child.kill('SIGTERM');
    await exited;
  };
  const elsewhere = started.then((message) => message.elsewhere);
  // Whoever waits for it to listen is told that it did not start.
  elsewhere.catch(() => undefined);
  return {
    child,
    listening: started.then((message) => message.listening),
    elsewhere,
    exited,
    stop,
  };
}
