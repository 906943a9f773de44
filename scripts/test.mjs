import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuilt } from './lib/build.mjs';
import { ensureDebian, ensurePackages, requireNode } from './lib/install.mjs';
import { main, ROOT, Sorry } from './lib/root.mjs';

const RESULTS = join(ROOT, '.cache', 'results');

/** Runs a step with its output shown; answers whether it succeeded. */
function step(title, command, args, env = {}) {
  process.stdout.write(`\n== ${title}\n`);
  const done = spawnSync(command, args, {
    cwd: ROOT,
    stdio: ['ignore', 'inherit', 'inherit'],
    env: { ...process.env, ...env },
  });
  return done.status === 0;
}

const npx = (title, ...args) => step(title, 'npx', ['--no-install', ...args]);

function read(file) {
  const path = join(RESULTS, file);
  return existsSync(path) ? JSON.parse(readFileSync(path, 'utf8')) : null;
}

function unit() {
  const isGood = npx(
    'Unit tests',
    'vitest',
    'run',
    '--reporter=default',
    '--reporter=json',
    `--outputFile.json=${join(RESULTS, 'unit.json')}`,
  );
  const report = read('unit.json');
  if (!report) return { passed: 0, failed: 1 };
  const failed = report.numFailedTests;
  return { passed: report.numPassedTests, failed: isGood || failed > 0 ? failed : 1 };
}

function endToEnd() {
  ensureDebian('chromium', () => spawnSync('chromium', ['--version']).status === 0, 'Chromium');
  ensureBuilt();
  const isGood = step(
    'End to end',
    'npx',
    ['--no-install', 'playwright', 'test', '--config', 'e2e/playwright.config.ts'],
    {
      PLAYWRIGHT_JSON_OUTPUT_NAME: join(RESULTS, 'e2e.json'),
    },
  );
  const stats = read('e2e.json')?.stats;
  if (!stats) return { passed: 0, failed: 1 };
  const failed = stats.unexpected + stats.flaky;
  return { passed: stats.expected, failed: isGood || failed > 0 ? failed : 1 };
}

/** A check that is no test of its own still fails the run. */
const check = (isGood) => ({ passed: 0, failed: isGood ? 0 : 1 });

function buildAll() {
  process.stdout.write('\n== Build\n');
  try {
    ensureBuilt();
    return true;
  } catch (error) {
    process.stderr.write(`${error.message}\n`);
    return false;
  }
}

const PARTS = {
  lint: () =>
    check(npx('Lint', 'eslint', '.') && npx('Formatting', 'prettier', '--check', '--log-level=warn', '.')),
  types: () => check(npx('Types', 'tsc', '-b')),
  unit,
  build: () => check(buildAll()),
  e2e: endToEnd,
};

await main(() => {
  requireNode();
  ensurePackages();
  const [only] = process.argv.slice(2);
  if (only !== undefined && !(only in PARTS))
    throw new Sorry(`There is no part "${only}"; there are ${Object.keys(PARTS).join(', ')}.`);
  rmSync(RESULTS, { recursive: true, force: true });
  mkdirSync(RESULTS, { recursive: true });
  const names = only === undefined ? Object.keys(PARTS) : [only];
  const counts = names.map((name) => PARTS[name]());
  const sum = (key) => counts.reduce((total, c) => total + c[key], 0);
  process.stdout.write(`\n${sum('passed')} passed, ${sum('failed')} failed\n`);
  process.exitCode = sum('failed') === 0 ? 0 : 1;
});
