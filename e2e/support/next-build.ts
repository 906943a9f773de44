import { cpSync, mkdtempSync, readdirSync, readFileSync, renameSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const BUILD = join(import.meta.dirname, '../../apps/web/dist');

/** How a page of the next build is told from one of this. */
export const NEXT_MARK = 'meta[name="build"][content="next"]';

/** A copy of the built page as its next version would be: another index, and every piece of code under another name. */
export function nextBuild(): string {
  const folder = mkdtempSync(join(tmpdir(), 'zemble-next-'));
  cpSync(BUILD, folder, { recursive: true });
  const assets = join(folder, 'assets');
  const pieces = new Set(readdirSync(assets).filter((name) => name.endsWith('.js')));
  for (const name of pieces) renameSync(join(assets, name), join(assets, nextName(name)));
  for (const path of filesIn(folder)) {
    if (!/\.(?:js|html)$/.test(path)) continue;
    const text = readFileSync(path, 'utf8');
    writeFileSync(
      path,
      text.replace(/[\w.-]+\.js/g, (name) => (pieces.has(name) ? nextName(name) : name)),
    );
  }
  const index = join(folder, 'index.html');
  writeFileSync(
    index,
    readFileSync(index, 'utf8').replace('<head>', '<head><meta name="build" content="next">'),
  );
  const worker = join(folder, 'sw.js');
  const list = readFileSync(worker, 'utf8');
  const changed = list.replace(/(url:"index\.html",revision:")[0-9a-f]{32}/, `$1${'0'.repeat(32)}`);
  if (changed === list) throw new Error('The list of what is kept has no index.');
  writeFileSync(worker, changed);
  return folder;
}

const nextName = (name: string): string => name.replace(/\.js$/, '-next.js');

const filesIn = (folder: string): string[] =>
  readdirSync(folder).flatMap((name) => {
    const path = join(folder, name);
    return statSync(path).isDirectory() ? filesIn(path) : [path];
  });
