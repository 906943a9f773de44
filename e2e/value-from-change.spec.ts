import { expect, goTo, newUnit, saved, test, typeParts } from './support/bench.ts';

test('a capacitor that cannot be measured follows from what a known one changed', async ({ page }) => {
  await newUnit(page, 'Slow sweep');
  await typeParts(page, ['V1 9V vcc 0', 'R1 1M vcc a', 'C7 68n a 0']);
  await goTo(page, 'Measure');
  await page.getByRole('button', { name: 'More' }).click();
  await page.getByRole('menuitem', { name: 'A value from a change' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Capacitor added').fill('220n');
  await dialog.getByLabel('Rate before').fill('6.1Hz');
  await dialog.getByLabel('Rate after').fill('6.4Hz');
  await expect(dialog.getByRole('status')).toContainText('cannot have changed that way');
  await dialog.getByLabel('Rate after').fill('1.4Hz');
  await expect(dialog.getByRole('status')).toContainText('65.5 nF ± 2 nF');
  await dialog.getByLabel('Part that it is').click();
  await page.getByTitle('C7', { exact: true }).click();
  await dialog.getByRole('button', { name: 'Take it for C7' }).click();
  await expect(page.getByRole('row').filter({ hasText: 'C7' })).toContainText('65.53 nF');
  await saved(page);
});
