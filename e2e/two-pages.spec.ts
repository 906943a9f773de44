import { expect, openUnit, test } from './support/bench.ts';

test('two pages on one unit see each other’s readings at once, and neither loses one', async ({
  browser,
  bench,
}) => {
  const open = async () => {
    const context = await browser.newContext({ baseURL: bench.url, viewport: { width: 1280, height: 800 } });
    const page = await context.newPage();
    await openUnit(page, /Heron/, 'Measure');
    await expect(page.getByRole('textbox', { name: /^Reading of/ })).toBeVisible();
    return page;
  };
  const [left, right] = [await open(), await open()];
  const enter = async (page: typeof left, line: string) => {
    const field = page.getByRole('textbox', { name: /^Reading of/ });
    await field.fill(line);
    await field.press('Enter');
  };
  const row = (page: typeof left, ref: string) =>
    page.getByRole('row').filter({ has: page.getByRole('button', { name: `Measure ${ref}`, exact: true }) });
  await enter(left, 'R11 22.1k');
  await expect(row(right, 'R11')).toContainText('22.1 kΩ');
  await Promise.all([enter(left, 'R12 21.9k'), enter(right, 'R13 99k')]);
  for (const page of [left, right]) {
    await expect(row(page, 'R12')).toContainText('21.9 kΩ');
    await expect(row(page, 'R13')).toContainText('99 kΩ');
  }
  await left.context().close();
  await right.context().close();
});
