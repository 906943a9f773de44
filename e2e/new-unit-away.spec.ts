import { expect, saved, test } from './support/bench.ts';

test('a unit made while the server is away is worked in, reloaded, and there once when it is back', async ({
  page,
  bench,
}) => {
  await page.goto('/');
  await expect(page.getByRole('link', { name: /Heron/ })).toBeVisible();
  // The page is kept for when the server is away.
  await page.evaluate(async () => void (await navigator.serviceWorker.ready));
  await page.reload();
  await bench.stopServer();
  await page.getByRole('button', { name: 'New unit' }).click();
  await page.getByLabel('Name').fill('Found in the attic');
  await page.getByLabel('Name').press('Enter');
  const field = page.getByLabel('Type a part');
  for (const line of ['V1 9V vcc 0', 'R1 10k vcc out', 'R2 10k out 0']) {
    await field.fill(line);
    await field.press('Enter');
  }
  await expect(page.getByRole('group', { name: 'Circuit of 3 parts' })).toBeVisible();
  await expect(page.locator('.saving-saving')).toHaveAttribute('data-state', 'waiting');
  await page.reload();
  await expect(page.getByRole('button', { name: 'Change R2' })).toBeVisible();
  await page.getByRole('link', { name: 'Bench', exact: true }).click();
  await expect(page.getByRole('link', { name: /Found in the attic new/ })).toBeVisible();
  await bench.startServer();
  await saved(page);
  await expect(page.getByRole('link', { name: /Found in the attic #\d+/ })).toHaveCount(1);
  const { units } = (await (await page.request.get('/api/v1/units')).json()) as {
    units: { name: string; partCount: number }[];
  };
  expect(units.filter((u) => u.name === 'Found in the attic').map((u) => u.partCount)).toEqual([3]);
});
