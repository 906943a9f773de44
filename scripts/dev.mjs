import { spawn } from 'node:child_process';
import { Cluster } from './lib/postgres.mjs';
import { ensurePackages, requireNode } from './lib/install.mjs';
import { main, ROOT } from './lib/root.mjs';

/** For work on the code: the database, the server from its sources and the page with hot reload, on one terminal. */
await main(async () => {
  requireNode();
  ensurePackages();
  const cluster = await Cluster.open();
  const run = (command, args, env = {}) =>
    spawn(command, args, {
      cwd: ROOT,
      stdio: ['ignore', 'inherit', 'inherit'],
      env: { ...process.env, ...env },
    });
  const server = run('npx', ['tsx', 'watch', 'apps/server/src/main.ts'], {
    ZEMBLE_DATABASE_URL: cluster.url,
  });
  const page = run('npm', ['run', '--silent', 'dev', '-w', '@zemble/web']);
  const stop = async () => {
    server.kill();
    page.kill();
    await cluster.stop();
    process.exit(0);
  };
  process.on('SIGINT', () => void stop());
  process.on('SIGTERM', () => void stop());
});
