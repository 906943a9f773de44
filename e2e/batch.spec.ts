import { expect, goTo, newUnit, readingField, saved, test, typeParts } from './support/bench.ts';

test('a dried-out capacitor puts its sisters on the list, and they are measured from there', async ({
  page,
}) => {
  await newUnit(page, 'Three of a batch');
  await typeParts(page, [
    'V1 12V vcc 0',
    'R1 10k vcc a',
    'C1 47u 25V electrolytic a 0',
    'R2 10k a b',
    'C2 10u 25V electrolytic b 0',
    'C3 100n film b 0',
  ]);
  await goTo(page, 'Measure');
  const field = readingField(page);
  await field.fill('C1 8u esr 40');
  await field.press('Enter');
  await expect(page.getByRole('status').filter({ hasText: 'C1' }).first()).toContainText('dried out');
  await expect(page.getByRole('status').filter({ hasText: 'ESR' })).toContainText('bad');
  await page.getByText('Does it matter', { exact: true }).click();
  await expect(page.getByText('Of the same batch, not measured yet:')).toContainText('C2');
  await expect(page.getByText('Of the same batch, not measured yet:')).not.toContainText('C3');
  await page.getByRole('button', { name: 'C2', exact: true }).click();
  await expect(page.getByLabel('Reading of C2')).toBeFocused();
  await page.keyboard.type('9.8u');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Of the same batch')).toBeHidden();
  await saved(page);
});
