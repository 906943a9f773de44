import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, it, vi } from 'vitest';
import { serverLog } from './log.ts';
import { openTestApp } from './testing/test-app.ts';

it('every request is logged, and neither a passphrase nor a device’s token is', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'zemble-log-'));
  const test = await openTestApp({ isOnNetwork: true, logger: serverLog(join(folder, 'server.log')) });
  const passphrase = 'a long way to the valley';
  const begun = await test.app.inject({
    method: 'POST',
    url: '/api/v1/people/first',
    payload: { name: 'Maren', passphrase },
  });
  const cookie = String(begun.headers['set-cookie']).split(';')[0]!;
  const token = cookie.split('=')[1]!;
  expect(token.length).toBeGreaterThan(40);
  await test.app.inject({ url: '/api/v1/units', headers: { cookie } });
  await test.app.inject({ url: '/api/v1/nothing-here', headers: { cookie } });
  const written = () =>
    readdirSync(folder)
      .map((name) => readFileSync(join(folder, name), 'utf8'))
      .join('');
  await vi.waitFor(() => expect(written()).toContain('/api/v1/nothing-here'), { timeout: 10_000 });
  expect(written()).toContain('"url":"/api/v1/units"');
  expect(written()).toContain('"url":"/api/v1/people/first"');
  expect(written()).not.toContain(passphrase);
  expect(written()).not.toContain(token);
  await test.close();
  rmSync(folder, { recursive: true, force: true });
});
