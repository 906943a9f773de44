import {
  addGain,
  BOOSTER,
  keptHere,
  expect,
  goTo,
  newUnit,
  readoutCell,
  saved,
  test,
  typeParts,
} from './support/bench.ts';

test('a reload keeps everything', async ({ page }) => {
  await newUnit(page, 'Reloaded');
  await typeParts(page, BOOSTER);
  await addGain(page, '20 dB');
  await goTo(page, 'Measure');
  await page.getByRole('button', { name: 'Measure R4' }).click();
  await page.getByLabel('Reading of R4').fill('910');
  await page.getByLabel('Reading of R4').press('Enter');
  await saved(page);
  // The reading has reached the readouts when they differ from the marked ones.
  const marked = await readoutCell(page, 'Gain', 'marked').innerText();
  await expect(readoutCell(page, 'Gain', 'found')).not.toHaveText(marked);
  const found = await readoutCell(page, 'Gain', 'found').innerText();
  await page.reload();
  await expect(page.getByRole('row', { name: /R4.*910/ })).toBeVisible();
  await expect(readoutCell(page, 'Gain', 'found')).toHaveText(found);
  await goTo(page, 'Trace');
  await expect(page.getByRole('region', { name: 'Parts' })).toContainText('10 parts');
});

test('the server goes away in mid-work: nothing entered is lost, nothing is done twice', async ({
  page,
  bench,
}) => {
  await newUnit(page, 'Interrupted');
  await typeParts(page, BOOSTER);
  await goTo(page, 'Measure');
  await page.getByLabel('Reading of C1').fill('97n');
  await page.getByLabel('Reading of C1').press('Enter');
  await saved(page);
  await bench.stopServer();
  for (const [ref, reading] of [
    ['R1', '475k'],
    ['R2', '69k'],
  ] as const) {
    await page.getByLabel(`Reading of ${ref}`).fill(reading);
    await page.getByLabel(`Reading of ${ref}`).press('Enter');
  }
  await keptHere(page);
  await expect(page.getByRole('row', { name: /R2.*69/ })).toBeVisible();
  await bench.startServer();
  await saved(page);
  await page.reload();
  for (const row of [/C1.*97/, /R1.*475/, /R2.*69/])
    await expect(page.getByRole('row', { name: row })).toBeVisible();
  await goTo(page, 'Log');
  await expect(page.getByText(/Measured R1/)).toHaveCount(1);
  await expect(page.getByText(/Measured R2/)).toHaveCount(1);
});
