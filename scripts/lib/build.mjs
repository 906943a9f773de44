import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ensurePackages } from './install.mjs';
import { withLock } from './lock.mjs';
import { ROOT, Sorry } from './root.mjs';

const INPUTS = ['packages', 'apps', 'package-lock.json'];
const SKIPPED = new Set(['node_modules', 'dist', '.cache']);
const STAMP = join(ROOT, '.cache', 'build-stamp');
const OUTPUTS = ['apps/server/dist/main.js', 'apps/web/dist/index.html'].map((p) => join(ROOT, p));

function fingerprint() {
  const hash = createHash('sha256');
  const visit = (path) => {
    const info = statSync(path);
    if (!info.isDirectory()) {
      hash.update(`${path} ${info.size} ${info.mtimeMs}\n`);
      return;
    }
    for (const name of readdirSync(path).sort()) if (!SKIPPED.has(name)) visit(join(path, name));
  };
  for (const input of INPUTS) visit(join(ROOT, input));
  return hash.digest('hex');
}

/** Packages and a build, made by one process of this checkout at a time: two starts at once do not write into each other. */
export async function prepare() {
  mkdirSync(join(ROOT, '.cache'), { recursive: true });
  await withLock(join(ROOT, '.cache', 'preparing.lock'), () => {
    ensurePackages();
    ensureBuilt();
  });
}

/** Builds the page and the server when a source is newer than what was built. */
export function ensureBuilt() {
  const now = fingerprint();
  const isFresh =
    OUTPUTS.every((p) => existsSync(p)) && existsSync(STAMP) && readFileSync(STAMP, 'utf8') === now;
  if (isFresh) return;
  process.stdout.write('Building…\n');
  const built = spawnSync('npm', ['run', '--silent', 'build'], {
    cwd: ROOT,
    encoding: 'utf8',
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  if (built.status !== 0) throw new Sorry(`The build failed.\n${built.stdout}${built.stderr}`);
  mkdirSync(join(ROOT, '.cache'), { recursive: true });
  writeFileSync(STAMP, now);
}
