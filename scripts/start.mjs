import { parseArgs } from 'node:util';
import { existsSync, mkdirSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { prepare } from './lib/build.mjs';
import { requireNode } from './lib/install.mjs';
import { Cluster } from './lib/postgres.mjs';
import { main, ROOT, Sorry } from './lib/root.mjs';
import { choosePort, startServer } from './lib/server.mjs';

const USUAL_PORT = 4780;

function readArguments() {
  try {
    const { values } = parseArgs({
      options: {
        port: { type: 'string' },
        data: { type: 'string' },
        host: { type: 'string', multiple: true, default: [] },
        'no-demo': { type: 'boolean', default: false },
        'reset-demo': { type: 'boolean', default: false },
        lan: { type: 'boolean', default: false },
        'let-in': { type: 'string' },
        restore: { type: 'string' },
        'leave-out': { type: 'boolean', default: false },
      },
    });
    const port = Number(values.port ?? USUAL_PORT);
    if (!Number.isInteger(port) || port < 1 || port > 65535)
      throw new Sorry(`--port ${values.port} is not a port number.`);
    const demo = values['reset-demo'] ? 'reset' : values['no-demo'] ? 'none' : 'first';
    const { lan, restore, 'let-in': letIn, 'leave-out': leaveOut } = values;
    if (leaveOut && restore === undefined) throw new Sorry('--leave-out is for --restore FILE.');
    if (restore !== undefined && !existsSync(restore))
      throw new Sorry(`There is no file ${restore} to restore from.`);
    if (letIn !== undefined && !lan) throw new Sorry('--let-in NAME is for a bench with --lan.');
    return {
      port,
      folder: values.data && resolve(values.data),
      server: { demo, hosts: values.host, lan, letIn, restore: restore && resolve(restore), leaveOut },
    };
  } catch (error) {
    if (error instanceof Sorry) throw error;
    throw new Sorry(
      `${error.message}\nUse: npm start -- [--port N] [--data DIR] [--host NAME] [--lan [--let-in NAME]] [--no-demo | --reset-demo | --restore FILE [--leave-out]]`,
    );
  }
}

/** The database that DATABASE_URL names, which is somebody else's to start and stop; otherwise one of our own. */
async function databaseOf(folder) {
  const url = process.env.DATABASE_URL;
  if (!url) return Cluster.open(folder ? { folder } : {});
  const own = folder ?? join(ROOT, '.data');
  mkdirSync(own, { recursive: true, mode: 0o700 });
  return { url, folder: own, stop: async () => {} };
}

await main(async () => {
  const { port, folder, server: options } = readArguments();
  requireNode();
  await prepare();
  const cluster = await databaseOf(folder);
  let server;
  let isStopping = false;
  const stop = async (code, sentence) => {
    if (isStopping) return;
    isStopping = true;
    if (sentence) process.stderr.write(`${sentence}\n`);
    await server?.stop();
    await cluster.stop();
    process.exit(code);
  };
  process.on('SIGINT', () => void stop(0));
  process.on('SIGTERM', () => void stop(0));
  process.on('SIGHUP', () => void stop(0));
  cluster.onLost = () =>
    void stop(
      1,
      cluster.whyStopped?.() ??
        'The database stopped unexpectedly. Start again with "npm start": nothing that was saved is lost.',
    );
  try {
    server = startServer({
      databaseUrl: cluster.url,
      port: await choosePort(port),
      folder: cluster.folder,
      ...options,
    });
    const address = await server.listening;
    void server.exited.then(() =>
      stop(
        1,
        'The server stopped unexpectedly. Start again with "npm start": nothing that was saved is lost.',
      ),
    );
    process.stdout.write(`Zemble is at ${address}\n`);
    for (const other of await server.elsewhere) process.stdout.write(`From other machines: ${other}\n`);
  } catch (error) {
    await cluster.stop();
    throw error;
  }
});
