import { expect, newUnit, test, typeParts } from './support/bench.ts';

for (const size of [
  { width: 1280, height: 800 },
  { width: 390, height: 844 },
])
  test(`the Desk at ${size.width} wide: either end is typed, nonsense is refused, and parts go into a unit`, async ({
    page,
  }) => {
    await page.setViewportSize(size);
    const name = `Desk ${size.width}`;
    await newUnit(page, name);
    await typeParts(page, ['V1 9V vcc 0', 'R1 1k vcc 0']);
    await page.goto('/desk');
    await page.getByLabel('Find a calculation').fill('divider');
    const divider = page.getByRole('region', { name: 'Divider with its load' });
    await expect(page.getByRole('region')).toHaveCount(1);
    await divider.getByLabel('Upper').fill('2k2');
    await divider.getByLabel('Load').fill('10k');
    await divider.getByLabel(/^Out/).fill('3V');
    await divider.getByLabel(/^Out/).press('Tab');
    // 9 R/(2k2 + R) = 3 with R = 1k1, which is R2 beside 10k: 1.236k.
    await expect(divider.getByLabel('Lower', { exact: true })).toHaveValue('1.236 kΩ');
    await divider.getByLabel(/^Out/).fill('12V');
    await expect(divider.getByText('No Lower makes it that.')).toBeVisible();
    await expect(divider.getByLabel('Lower', { exact: true })).toHaveValue('1.236 kΩ');
    await divider.getByLabel(/^Out/).fill('hello');
    await expect(divider.getByText(/"hello" cannot be read/)).toBeVisible();
    await divider.getByRole('button', { name: 'Take into a unit' }).click();
    await page.getByRole('menuitem', { name }).click();
    await expect(page.getByLabel('Type a change')).toHaveValue('Divider: +R90 2.2k in out; +R91 1.2k out 0');
    const isCut = await page.evaluate(
      () => document.documentElement.scrollWidth > document.documentElement.clientWidth,
    );
    expect(isCut).toBe(false);
  });
