import type { UnitResource } from '@zemble/contract';
import { expect, goTo, keptHere, newUnit, readingField, saved, test, typeParts } from './support/bench.ts';

test('two pages go on for hours without the server: parts added, corrected and measured, everything arrives once', async ({
  page,
  context,
}) => {
  await newUnit(page, 'Up the valley');
  await typeParts(page, ['V1 9V vcc 0', 'R1 10k vcc a']);
  const url = page.url();
  const id = /units\/([0-9a-f-]+)/.exec(url)![1]!;
  // The page is kept by now, and what was just entered with it.
  await page.evaluate(async () => void (await navigator.serviceWorker.ready));
  await page.reload();
  await expect(page.getByRole('button', { name: 'Change R1' })).toBeVisible();
  const other = await context.newPage();
  await other.goto(url.replace('/trace', '/measure'));
  await expect(readingField(other)).toBeVisible();

  await context.setOffline(true);
  const sheet = page.getByLabel('Type a part');
  for (const line of ['R2 22k a 0', 'C1 100n a 0']) {
    await sheet.fill(line);
    await sheet.press('Enter');
  }
  const read = async (line: string) => {
    await readingField(other).fill(line);
    await readingField(other).press('Enter');
    await expect(readingField(other)).toHaveValue('');
  };
  await read('R1 10.2k');
  // The other page shows, and can measure, what was added while away.
  await read('R2 21.5k');
  await read('R2 21.6k');
  await keptHere(other);
  // A reload without the server keeps all of it.
  await page.reload();
  await expect(page.getByRole('button', { name: 'Change R2' })).toBeVisible();
  await goTo(page, 'Measure');
  await expect(page.getByRole('row', { name: /^Measure R2/ })).toContainText('21.6 kΩ');

  await context.setOffline(false);
  await saved(page);
  await saved(other);
  const unit = (await (await page.request.get(`/api/v1/units/${id}`)).json()) as UnitResource;
  expect(unit.parts.map((p) => p.part.ref)).toEqual(['V1', 'R1', 'R2', 'C1']);
  const readings = unit.readings.map((r) => [unit.parts.find((p) => p.id === r.partId)!.part.ref, r.value]);
  expect(readings).toEqual([
    ['R1', 10_200],
    ['R2', 21_500],
    ['R2', 21_600],
  ]);
});
