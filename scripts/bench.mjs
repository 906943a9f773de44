// Bundles the bench, so that it runs the code as the page and the command run it, and starts it; then times the real page and the real server.
import { build } from 'esbuild';
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { benchLoad } from './lib/bench-load.mjs';
import { benchPage } from './lib/bench-page.mjs';
import { ensureBuilt } from './lib/build.mjs';
import { ensureDebian, ensurePackages } from './lib/install.mjs';
import { main, ROOT } from './lib/root.mjs';

const out = join(ROOT, 'node_modules', '.cache', 'zemble-bench');
await build({
  entryPoints: [
    join(ROOT, 'packages/core/bench/main.ts'),
    join(ROOT, 'packages/core/bench/spread-worker.ts'),
  ],
  outdir: out,
  outExtension: { '.js': '.mjs' },
  bundle: true,
  platform: 'node',
  format: 'esm',
  mainFields: ['module', 'main'],
});
if (!process.argv.includes('--page')) {
  const core = spawnSync(process.execPath, [join(out, 'main.mjs')], { stdio: 'inherit' });
  if (core.status !== 0) process.exit(core.status ?? 1);
}
await main(async () => {
  ensurePackages();
  ensureDebian('chromium', () => spawnSync('chromium', ['--version']).status === 0, 'Chromium');
  ensureBuilt();
  const rows = [...(await benchPage()), ...(await benchLoad())];
  const width = Math.max(...rows.map((r) => r.what.length));
  for (const { what, ms, note } of rows)
    process.stdout.write(`${what.padEnd(width)}  ${`${ms.toFixed(1)} ms`.padStart(10)}  ${note ?? ''}\n`);
});
