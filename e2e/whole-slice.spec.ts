import { readFile } from 'node:fs/promises';
import {
  addGain,
  BOOSTER,
  expect,
  goTo,
  newUnit,
  readoutCell,
  saved,
  test,
  typeParts,
} from './support/bench.ts';

test('a unit from typed lines to a plan, a record and the same numbers after import', async ({ page }) => {
  await newUnit(page, 'Meadow booster');
  await typeParts(page, BOOSTER);
  await expect(page.getByRole('group', { name: 'Circuit of 10 parts' })).toBeVisible();
  await addGain(page, '21 ± 0.5 dB');
  await expect(readoutCell(page, 'Gain', 'marked')).toHaveText(/\d+\.\d dB/);

  await goTo(page, 'Measure');
  await page.getByRole('button', { name: 'Measure R4' }).click();
  await page.getByText('leg lifted', { exact: true }).click();
  await page.getByLabel('Reading of R4').fill('1.25k');
  await expect(page.getByText('reads 52 % above 820')).toBeVisible();
  await page.getByLabel('Reading of R4').press('Enter');
  await expect(page.getByRole('row', { name: /R4.*out, high/ })).toBeVisible();
  await saved(page);
  const marked = await readoutCell(page, 'Gain', 'marked').innerText();
  await expect
    .poll(async () => parseFloat(await readoutCell(page, 'Gain', 'found').innerText()))
    .toBeLessThan(parseFloat(marked) - 2);

  await goTo(page, 'Rework');
  await page.getByLabel('Wanted value').fill('20 ± 0.5 dB');
  await page.getByRole('button', { name: 'Find values' }).click();
  const best = page.getByRole('listitem').filter({ hasText: 'R4' }).first();
  await expect(best).toContainText('dB');
  await best.getByRole('button', { name: /R4/ }).click();
  await expect(readoutCell(page, 'Gain', 'planned')).toContainText(/^(19\.[5-9]|20\.[0-5])/);
  await best.getByRole('button', { name: 'Plan it' }).click();
  await saved(page);
  await expect(readoutCell(page, 'Gain', 'planned')).toContainText(/^(19\.[5-9]|20\.[0-5])/);

  await goTo(page, 'Log');
  await expect(page.getByText(/Planned: Other value of R4/)).toBeVisible();
  await expect(page.getByText(/Measured R4 with a leg lifted: 1.25 kΩ/)).toBeVisible();
  await page.getByLabel('Note', { exact: true }).fill('Owner likes it quiet.');
  await page.getByLabel('Note', { exact: true }).press('Enter');
  await expect(page.getByText('Owner likes it quiet.')).toBeVisible();
  await saved(page);

  const before = await page.getByRole('region', { name: 'Readouts' }).getByRole('row').allInnerTexts();
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Export the unit' }).click();
  const path = await (await download).path();
  const file = JSON.parse(await readFile(path, 'utf8')) as {
    format: string;
    circuit: { parts: { ref: string; found?: number }[] };
    changes: object[];
  };
  expect(file.format).toBe('zemble/unit');
  expect(file.circuit.parts.find((p) => p.ref === 'R4')).toMatchObject({ found: 1250 });
  expect(file.changes).toMatchObject([
    { state: 'planned', steps: [{ do: 'fit', ref: 'R4', value: expect.any(Number) }] },
  ]);

  await page.getByRole('link', { name: 'Bench', exact: true }).click();
  await page.getByLabel('Open a unit file').setInputFiles({
    name: 'again.zemble.json',
    mimeType: 'application/json',
    buffer: await readFile(path),
  });
  await expect(page.getByRole('group', { name: 'Circuit of 10 parts' })).toBeVisible();
  await expect
    .poll(() => page.getByRole('region', { name: 'Readouts' }).getByRole('row').allInnerTexts())
    .toEqual(before);
});
