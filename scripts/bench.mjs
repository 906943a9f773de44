// Bundles the bench, so that it runs the code as the page and the command run it, and starts it.
import { build } from 'esbuild';
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { ROOT } from './lib/root.mjs';

const out = join(ROOT, 'node_modules', '.cache', 'halfsplit-bench');
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
process.exit(spawnSync(process.execPath, [join(out, 'main.mjs')], { stdio: 'inherit' }).status ?? 1);
