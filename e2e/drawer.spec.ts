import { copyInMeasure, expect, saved, test } from './support/bench.ts';

test('the drawer: a line put in, found, counted, reserved for a plan; what is missing stands on the list to buy', async ({
  page,
}) => {
  const unit = await copyInMeasure(page, /Drover/);
  await page.goto('/drawer');
  const entry = page.getByLabel('Put in');
  await entry.fill('4k7 5% glitter x3');
  await expect(page.getByText(/"glitter" is no tolerance/)).toBeVisible();
  await entry.fill('123R 1% x3 in Z9');
  await expect(page.getByText('3 of 123 Ω, resistor, 1 %, in Z9')).toBeVisible();
  await entry.press('Enter');
  await expect(entry).toHaveValue('');
  await page.getByLabel('Find in the drawer').fill('no such thing');
  await expect(page.getByText('Nothing in the drawer answers to “no such thing”')).toBeVisible();
  await page.getByLabel('Find in the drawer').fill('123 z9');
  const row = page.getByRole('row').filter({ hasText: '123 Ω' });
  await expect(row).toHaveCount(1);
  const count = row.getByLabel('Count of 123 Ω in Z9');
  await count.fill('2');
  await count.press('Enter');
  await saved(page);
  await page.reload();
  await page.getByLabel('Find in the drawer').fill('123R');
  await expect(row.getByLabel('Count of 123 Ω in Z9')).toHaveValue('2');

  await page.goto(`/units/${unit.id}/rework`);
  const field = page.getByLabel('Type a change');
  const planned = unit.parts.find((p) => p.part.kind === 'resistor')!.part.ref;
  await field.fill(`Two: ${planned} -> 123R; +R77 22M n77 0`);
  await field.press('Enter');
  await saved(page);
  await page.goto('/drawer');
  const toBuy = page.getByRole('region', { name: 'To buy' });
  await expect(toBuy.getByText('1 × 22 MΩ')).toBeVisible();
  await expect(
    toBuy
      .getByText('22 MΩ is no longer made: 10 MΩ + 12 MΩ in series.')
      .or(toBuy.getByText(/In the drawer: 12 MΩ \(A6\) and 10 MΩ \(A6\) in series make 22 MΩ/))
      .first(),
  ).toBeVisible();
  await expect(page.getByRole('region', { name: 'Reserved' }).getByText('1 of Z9')).toBeVisible();
  await page.getByLabel('Find in the drawer').fill('123R');
  await expect(row.locator('td').nth(6)).toHaveText('1');

  // Ticked, one is taken; what came out is offered to be kept.
  await page.goto(`/units/${unit.id}/rework`);
  await page.getByRole('button', { name: 'Done: Two' }).click();
  await saved(page);
  await page.goto('/drawer');
  await page.getByLabel('Find in the drawer').fill('123R');
  await expect(row.getByLabel('Count of 123 Ω in Z9')).toHaveValue('1');
  const out = page
    .getByRole('region', { name: 'Came out' })
    .getByRole('listitem')
    .filter({ hasText: planned })
    .first();
  await out.getByPlaceholder('where').fill('Z8');
  await out.getByRole('button', { name: /^Keep/ }).click();
  await page.getByLabel('Find in the drawer').fill('z8');
  await expect(page.getByRole('row').filter({ has: page.getByLabel(/in Z8/) })).toHaveCount(1);
});

test('a drawer comes in as a table; lines that cannot be read are named, and nothing is lost', async ({
  page,
}) => {
  await page.goto('/drawer');
  const text =
    'kind,value,tolerance,rating,technology,count,place\nresistor,321R,1%,,,5,Y1\nflux,1k,,,,1,Y2\nresistor,322R,,,,many,Y3\n';
  await page.setInputFiles('input[type=file]', {
    name: 'mine.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(text),
  });
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByText(/line 3: "flux" is no kind of part/)).toBeVisible();
  await expect(dialog.getByText(/line 4: "many" is not a count/)).toBeVisible();
  await dialog.getByRole('button', { name: 'Put the other 1 in' }).click();
  await page.getByLabel('Find in the drawer').fill('y1');
  await expect(page.getByLabel('Count of 321 Ω in Y1')).toHaveValue('5');
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as a table' }).click();
  expect((await saved).suggestedFilename()).toBe('drawer.csv');
});
