import { rmSync } from 'node:fs';
import { expect, goTo, keptHere, newUnit, saved, test, typeParts } from './support/bench.ts';
import { NEXT_MARK, nextBuild } from './support/next-build.ts';

test('a new version comes under open pages: one is told and loses nothing, one that knows of no other build goes on', async ({
  page,
  bench,
  browser,
}) => {
  await newUnit(page, 'Across an upgrade');
  await typeParts(page, ['V1 9V vcc 0', 'R1 10k vcc a']);
  await page.evaluate(async () => void (await navigator.serviceWorker.ready));
  // A page that nothing is kept of, as on a first visit, stays open too.
  const first = await (await browser.newContext({ serviceWorkers: 'block', baseURL: bench.url })).newPage();
  await first.goto('/');
  await expect(first.getByRole('link', { name: /Across an upgrade/ })).toBeVisible();

  // While the server is upgraded, work goes on.
  await bench.stopServer();
  await typeParts(page, ['R2 22k a 0'], keptHere);
  const field = page.getByLabel('Type a part');
  await field.fill('C1 100n a');
  const next = nextBuild();
  await bench.startServer(next);
  await saved(page);
  await page.evaluate(async () => void (await (await navigator.serviceWorker.ready).update()));
  await expect(page.getByText('A new version is here.')).toBeVisible();
  await expect(field).toHaveValue('C1 100n a');
  await expect(page.locator(NEXT_MARK)).toHaveCount(0);
  await page.getByRole('button', { name: 'Take it now' }).click();
  await expect(page.locator(NEXT_MARK)).toHaveCount(1);
  await expect(page.getByRole('group', { name: 'Circuit of 3 parts' })).toBeVisible();
  await goTo(page, 'Log');
  await expect(page.getByText(/R2 22k/).first()).toBeVisible();

  // The other asks for a piece that is gone, and is loaded anew, once.
  await first.getByRole('link', { name: 'Drawer', exact: true }).click();
  await expect(first.locator(NEXT_MARK)).toHaveCount(1);
  await expect(first.getByRole('heading', { name: 'Drawer' })).toBeVisible();
  // As it was, for whoever comes next to this bench.
  await bench.stopServer();
  await bench.startServer();
  rmSync(next, { recursive: true, force: true });
});
