import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT, Sorry } from './root.mjs';

const OLDEST_NODE = [20, 20];

export function requireNode() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major > OLDEST_NODE[0] || (major === OLDEST_NODE[0] && minor >= OLDEST_NODE[1])) return;
  throw new Sorry(`Node.js ${OLDEST_NODE.join('.')} or later is needed; this is ${process.versions.node}.`);
}

/** Installs the npm packages of the lockfile when they are missing or older than it. */
export function ensurePackages() {
  const lock = join(ROOT, 'package-lock.json');
  const installed = join(ROOT, 'node_modules', '.package-lock.json');
  if (existsSync(installed) && statSync(installed).mtimeMs >= statSync(lock).mtimeMs) return;
  if (existsSync(installed) && sameLock(lock, installed)) return;
  process.stdout.write('Installing packages from the lockfile (about a minute)…\n');
  const done = spawnSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: ROOT,
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  if (done.status !== 0) throw new Sorry('npm could not install the packages; see its message above.');
}

/** The installed tree has every package of the lockfile at its version. */
function sameLock(lock, installed) {
  const read = (file) => JSON.parse(readFileSync(file, 'utf8')).packages;
  const wanted = Object.entries(read(lock)).filter(
    ([path, entry]) => path.startsWith('node_modules/') && !entry.optional && !entry.link,
  );
  const have = read(installed);
  return wanted.every(([path, entry]) => have[path]?.version === entry.version);
}

/** Installs a Debian package when we may; otherwise says in one sentence what to install. */
export function ensureDebian(packageName, isPresent, purpose) {
  if (isPresent()) return;
  const mayInstall = process.getuid?.() === 0 && spawnSync('apt-get', ['--version']).status === 0;
  if (!mayInstall)
    throw new Sorry(
      `${purpose} is missing: install it with "sudo apt-get install ${packageName}" and start again.`,
    );
  process.stdout.write(`Installing Debian's ${packageName}…\n`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const apt = (...args) =>
    spawnSync('apt-get', args, { env, stdio: ['ignore', 'ignore', 'inherit'] }).status === 0;
  const install = () => apt('install', '-y', '-q', '--no-install-recommends', packageName);
  if (!install() && !(apt('update', '-q') && install()))
    throw new Sorry(`apt-get could not install ${packageName}; see its message above.`);
  if (!isPresent()) throw new Sorry(`${packageName} was installed, but ${purpose} is still not found.`);
}
