import { parseArgs } from 'node:util';
import { resolve } from 'node:path';
import { ensureBuilt } from './lib/build.mjs';
import { ensurePackages, requireNode } from './lib/install.mjs';
import { Cluster } from './lib/postgres.mjs';
import { main, Sorry } from './lib/root.mjs';
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
      },
    });
    const port = Number(values.port ?? USUAL_PORT);
    if (!Number.isInteger(port) || port < 1 || port > 65535)
      throw new Sorry(`--port ${values.port} is not a port number.`);
    const demo = values['reset-demo'] ? 'reset' : values['no-demo'] ? 'none' : 'first';
    return { port, demo, hosts: values.host, folder: values.data && resolve(values.data) };
  } catch (error) {
    if (error instanceof Sorry) throw error;
    throw new Sorry(
      `${error.message}\nUse: npm start -- [--port N] [--data DIR] [--host NAME] [--no-demo] [--reset-demo]`,
    );
  }
}

/** The database that DATABASE_URL names, which is somebody else's to start and stop; otherwise one of our own. */
async function databaseOf(folder) {
  const url = process.env.DATABASE_URL;
  return url ? { url, stop: async () => {} } : Cluster.open(folder ? { folder } : {});
}

await main(async () => {
  const { port, demo, hosts, folder } = readArguments();
  requireNode();
  ensurePackages();
  ensureBuilt();
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
      'The database stopped unexpectedly. Start again with "npm start": nothing that was saved is lost.',
    );
  try {
    server = startServer({ databaseUrl: cluster.url, port: await choosePort(port), demo, hosts });
    const address = await server.listening;
    void server.exited.then(() =>
      stop(
        1,
        'The server stopped unexpectedly. Start again with "npm start": nothing that was saved is lost.',
      ),
    );
    process.stdout.write(`Halfsplit is at ${address}\n`);
  } catch (error) {
    await cluster.stop();
    throw error;
  }
});
