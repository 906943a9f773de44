import { expect, goTo, openUnit, saved, test } from './support/bench.ts';

test.use({ viewport: { width: 390, height: 844 } });

test('on a phone: nothing is cut off sideways, and a reading is typed and judged', async ({ page }) => {
  await openUnit(page, /Lark 3/);
  for (const stage of ['Intake', 'Trace', 'Find', 'Measure', 'Rework', 'Log'] as const) {
    await goTo(page, stage);
    const overflow = await page.evaluate(() => document.documentElement.scrollWidth - innerWidth);
    expect(overflow, stage).toBeLessThanOrEqual(0);
  }
  await goTo(page, 'Measure');
  await page.getByLabel('Reading of R102').fill('225k');
  await page.getByLabel('Reading of R102').press('Enter');
  await expect(page.getByRole('status').filter({ hasText: 'R102' })).toContainText('within 10 %');
  await saved(page);
});
