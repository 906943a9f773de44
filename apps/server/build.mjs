import { build } from 'esbuild';
import { readFileSync } from 'node:fs';

const manifest = JSON.parse(readFileSync(new URL('package.json', import.meta.url), 'utf8'));
const external = Object.keys(manifest.dependencies).filter((name) => !name.startsWith('@zemble/'));

await build({
  absWorkingDir: import.meta.dirname,
  entryPoints: ['src/main.ts'],
  outfile: 'dist/main.js',
  bundle: true,
  platform: 'node',
  target: 'node20',
  format: 'esm',
  mainFields: ['module', 'main'],
  external,
  sourcemap: true,
  logLevel: 'warning',
});
