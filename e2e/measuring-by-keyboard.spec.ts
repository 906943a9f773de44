import { BOOSTER, expect, goTo, newUnit, saved, test, typeParts } from './support/bench.ts';

test('a measuring run with the keyboard only: type, Enter, next', async ({ page }) => {
  await newUnit(page, 'Keyboard run');
  await typeParts(page, BOOSTER);
  await page.keyboard.press('Alt+4');
  await expect(page.getByLabel('Reading of C1')).toBeFocused();
  await expect(page.getByRole('radio', { name: 'in circuit' })).toBeChecked();
  await page.keyboard.press('Space');
  await expect(page.getByRole('radio', { name: 'leg lifted' })).toBeChecked();
  await page.keyboard.type('98n');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Reading of R1')).toBeFocused();
  await expect(page.getByRole('status').filter({ hasText: 'C1' })).toContainText('within 10 %');

  await page.keyboard.press('Space');
  await expect(page.getByRole('radio', { name: 'in circuit' })).toBeChecked();
  await page.keyboard.type('220k');
  await page.keyboard.press('Enter');
  // Nothing around it could make it read so low: it is convicted where it stands.
  await expect(page.getByRole('row', { name: /R1 .*out, low/ })).toBeVisible();

  await expect(page.getByLabel('Reading of R2')).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Reading of R3')).toBeFocused();
  await page.keyboard.press('Space');
  await page.keyboard.type('4x7');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('"4x7" cannot be read as a value');
  await expect(page.getByLabel('Reading of R3')).toHaveValue('4x7');
  await page.keyboard.press('Control+A');
  await page.keyboard.type('OL');
  await page.keyboard.press('Enter');
  for (const reading of ['821', '4.1u', '99k']) {
    await page.keyboard.type(reading);
    await page.keyboard.press('Enter');
  }
  await expect(page.getByText('Every part is measured or skipped.')).toBeVisible();
  await saved(page);
  const rows = page.getByRole('region', { name: 'Readings' }).getByRole('row');
  await expect(rows.nth(1)).toContainText(/R3.*open/);
  await page.getByRole('button', { name: 'Go through the skipped ones' }).press('Enter');
  await expect(page.getByLabel('Reading of R2')).toBeFocused();
});

test('a correction keeps the earlier reading', async ({ page }) => {
  await newUnit(page, 'Correction');
  await typeParts(page, BOOSTER);
  await goTo(page, 'Measure');
  for (const reading of ['9.8k', '10.1k']) {
    await page.getByRole('button', { name: 'Measure R3' }).click();
    await page.getByLabel('Reading of R3').fill(reading);
    await page.getByLabel('Reading of R3').press('Enter');
  }
  await expect(page.getByRole('row', { name: /R3.*10\.1/ })).toHaveAttribute('title', /2 readings are kept/);
  await saved(page);
  await goTo(page, 'Log');
  await expect(page.getByText(/Measured R3.*9\.8 kΩ/)).toBeVisible();
  await expect(page.getByText(/Measured R3.*10\.1 kΩ/)).toBeVisible();
});
