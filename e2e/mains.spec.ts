import { expect, goTo, newUnit, readingField, saved, test, typeParts } from './support/bench.ts';

test('the frequency of the mains is asked once, and what depends on it follows', async ({ page }) => {
  await page.goto('/');
  const mains = page.getByLabel('Frequency of the mains');
  await expect(page.getByText('Which mains is here?')).toBeVisible();
  await mains.getByText('60 Hz').click();
  await expect(page.getByText('Which mains is here?')).toBeHidden();
  await saved(page);
  await page.reload();
  await expect(mains.getByRole('radio', { name: '60 Hz' })).toBeChecked();
  await expect(page.getByText('Which mains is here?')).toBeHidden();

  await newUnit(page, 'On another mains');
  await typeParts(page, ['V1 12V vcc 0', 'C1 1000u 25V electrolytic vcc 0', 'R1 120 vcc 0']);
  await goTo(page, 'Measure');
  await readingField(page).fill('vcc 0.8Vpp');
  await readingField(page).press('Enter');
  await expect(page.getByText(/on 60 Hz mains/)).toBeVisible();

  // As it was, for whoever comes next to this bench.
  await page.goto('/');
  await mains.getByText('50 Hz').click();
  await saved(page);
});
