import { expect, keptHere, saved, test } from './support/bench.ts';

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
  await keptHere(page);
  // A file that is opened meanwhile waits; what goes into the drawer is there at once.
  await page.goto('/');
  const file = {
    format: 'zemble/unit',
    version: 1,
    unit: { name: 'From a file' },
    circuit: {
      ground: '0',
      parts: [{ ref: 'R1', kind: 'resistor', pins: { a: 'x', b: '0' }, marked: 1000 }],
    },
  };
  await page.setInputFiles('input[type=file]', {
    name: 'attic.zemble.json',
    mimeType: 'application/json',
    buffer: Buffer.from(JSON.stringify(file)),
  });
  await expect(page.getByText('attic.zemble.json is kept here')).toBeVisible();
  await page.goto('/drawer');
  await page.getByLabel('Put in').fill('123R 1% x3 in X9');
  await page.getByLabel('Put in').press('Enter');
  await expect(page.getByLabel('Count of 123 Ω in X9')).toHaveValue('3');
  await keptHere(page);
  await page.reload();
  await expect(page.getByLabel('Count of 123 Ω in X9')).toHaveValue('3');
  await page.goto('/');
  await page.getByRole('link', { name: /Found in the attic new/ }).click();
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
  expect(units.filter((u) => u.name === 'From a file').map((u) => u.partCount)).toEqual([1]);
  const { items } = (await (await page.request.get('/api/v1/drawer')).json()) as {
    items: { place: string; count: number }[];
  };
  expect(items.filter((i) => i.place === 'X9').map((i) => i.count)).toEqual([3]);
});
