import { copyInMeasure, expect, saved, test } from './support/bench.ts';

test.use({ viewport: { width: 390, height: 844 }, hasTouch: true });

test('on a phone: a way of doing is asked for, told and planned; nothing is cut off sideways', async ({
  page,
}) => {
  const unit = await copyInMeasure(page, /Plover/);
  await page.goto(`/units/${unit.id}/rework`);
  const changes = page.getByRole('region', { name: 'Changes' });
  await expect(changes).toBeVisible();
  await page.locator('[data-ref=C1]').first().tap();
  const ways = page.getByRole('region', { name: 'Ways of doing' });
  await ways.getByRole('button', { name: 'Bass corner by a coupling capacitor' }).tap();
  await ways.getByLabel('Corner').fill('5 Hz');
  await expect(ways.getByText(/3 dB down at .*, by this capacitor alone/)).toBeVisible();
  await ways.getByRole('button', { name: 'Plan it' }).tap();
  await expect(changes.getByRole('button', { name: 'Bass 5 Hz', exact: true })).toBeVisible();
  await saved(page);
  const isCut = await page.evaluate(
    () => document.documentElement.scrollWidth > document.documentElement.clientWidth,
  );
  expect(isCut).toBe(false);
});
