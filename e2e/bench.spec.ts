import { expect, test } from '@playwright/test';
import { execFile } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { promisify } from 'node:util';

const BENCH = fileURLToPath(new URL('../scripts/bench.mjs', import.meta.url));

test('the bench of the page runs to its end, every row with a time', async () => {
  test.setTimeout(300_000);
  const { stdout } = await promisify(execFile)(process.execPath, [BENCH, '--page', '--short']);
  const rows = stdout.split('\n').filter((line) => line.includes(' ms'));
  for (const what of [
    'Enter to verdict',
    'a key in the sheet',
    'Enter to the row',
    'every readout',
    'every curve',
  ])
    expect(rows.find((row) => row.includes(what))).toMatch(/\d+\.\d ms/);
});
