import { mkdir, readdir, rename, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';

const PACKAGES = fileURLToPath(new URL('../..', import.meta.url));
/** What the command is made of. */
const SOURCES = ['cli', 'core', 'contract'].map((name) => join(PACKAGES, name, 'src'));
const FOLDER = join(PACKAGES, 'cli', 'dist');
const BUILT = join(FOLDER, 'zemble.mjs');
/** Packages that were written for `require` find it in a bundle of modules. */
const BANNER = `import { createRequire as requireOf } from 'node:module'; const require = requireOf(import.meta.url);`;

/** When the newest file below a folder, or a folder in it, was changed, ms since 1970. */
async function newest(folder) {
  const entries = await readdir(folder, { withFileTypes: true });
  const times = await Promise.all([
    stat(folder).then((s) => s.mtimeMs),
    ...entries.map((entry) => {
      const path = join(folder, entry.name);
      return entry.isDirectory() ? newest(path) : stat(path).then((s) => s.mtimeMs);
    }),
  ]);
  return Math.max(...times);
}

const isBuilt = async () => {
  const built = await stat(BUILT).then(
    (s) => s.mtimeMs,
    () => 0,
  );
  return built > Math.max(...(await Promise.all(SOURCES.map(newest))));
};

/** The command as one file, made anew when anything that it is made of has changed: its address. */
export async function builtCommand() {
  if (!(await isBuilt())) {
    const { build } = await import('esbuild');
    await mkdir(FOLDER, { recursive: true });
    const made = join(FOLDER, `zemble-${process.pid}.mjs`);
    await build({
      entryPoints: [join(PACKAGES, 'cli', 'src', 'main.ts')],
      outfile: made,
      bundle: true,
      platform: 'node',
      format: 'esm',
      target: 'node20',
      mainFields: ['module', 'main'],
      minify: true,
      banner: { js: BANNER },
      logLevel: 'error',
    });
    // Two that are called at once each make their own, and the last one stays.
    await rename(made, BUILT);
  }
  return pathToFileURL(BUILT).href;
}
