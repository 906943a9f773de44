import { BOOSTER, expect, newUnit, saved, test, typeParts } from './support/bench.ts';

for (const choice of ['Use mine', 'Keep what is there'] as const) {
  test(`two pages change the same part: both values are offered, then "${choice}"`, async ({
    page,
    browser,
    bench,
  }) => {
    await newUnit(page, `Contested, ${choice}`);
    await typeParts(page, BOOSTER);
    const other = await (await browser.newContext({ baseURL: bench.url })).newPage();
    await other.goto(page.url());
    await expect(other.getByRole('button', { name: 'Change R3' })).toBeVisible();

    const begin = (on: typeof page) => on.getByRole('button', { name: 'Change R3' }).click();
    const change = async (on: typeof page, line: string) => {
      const field = on.getByRole('textbox', { name: 'Change R3' });
      await field.fill(line);
      await field.press('Enter');
    };
    // The first page begins with what it sees; meanwhile the other one changes it.
    await begin(page);
    await begin(other);
    await change(other, 'R3 15k vcc c1');
    await saved(other);
    await change(page, 'R3 8k2 vcc c1');
    const dialog = page.getByRole('dialog', { name: 'Changed elsewhere meanwhile' });
    await expect(dialog).toContainText('R3 15k vcc c1');
    await expect(dialog).toContainText('R3 8.2k vcc c1');
    await dialog.getByRole('button', { name: choice }).click();
    await saved(page);
    await page.reload();
    const kept = choice === 'Use mine' ? '8.2 kΩ' : '15 kΩ';
    await expect(page.getByRole('row', { name: /R3/ })).toContainText(kept);
  });
}
