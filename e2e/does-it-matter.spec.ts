import { expect, goTo, openUnit, saved, test } from './support/bench.ts';

test('drifts are ordered by what they do, and the fewest parts to replace are planned', async ({ page }) => {
  await openUnit(page, /Lark 3/, 'Measure');
  await page.getByText('Does it matter', { exact: true }).click();
  const matter = page.getByLabel('Drifts, scroll');
  await expect(matter.getByRole('status')).toContainText('Replace R104, R109');
  await expect(matter.getByRole('row').nth(1)).toContainText('R104');
  await expect(matter.getByRole('row').nth(1)).toContainText('replace');
  await matter.getByRole('button', { name: 'Plan it' }).click();
  await saved(page);
  await goTo(page, 'Rework');
  await expect(page.getByRole('spinbutton', { name: 'Value of R104' })).toHaveAttribute(
    'aria-valuetext',
    /680 Ω/,
  );
  await page.keyboard.press('Control+Z');
  await saved(page);
});
