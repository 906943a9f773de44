import { expect, test } from '@playwright/test';
import { execFile } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { promisify } from 'node:util';

const SOAK = fileURLToPath(new URL('../scripts/soak.mjs', import.meta.url));
const ROUNDS = 6;

test('the server is killed again and again under a page and clients that write: nothing is lost, nothing doubled', async () => {
  test.setTimeout(180_000);
  const { stdout } = await promisify(execFile)(process.execPath, [SOAK, '--rounds', String(ROUNDS)]);
  expect(stdout).toMatch(
    new RegExp(
      `${ROUNDS} kills, \\d+ notes acknowledged or typed, \\d+ cuts, \\d+ batches: 0 lost, 0 doubled`,
    ),
  );
});
