import { BOOSTER, expect, newUnit, saved, test, typeParts } from './support/bench.ts';

test('the sheet says what is wrong where it is wrong, completes nets and takes steps back', async ({
  page,
}) => {
  await newUnit(page, 'Sheet');
  const field = page.getByLabel('Type a part');
  await field.fill('R4 47q in out');
  await field.press('Enter');
  await expect(page.getByRole('alert')).toContainText('"47q" is neither a value nor one of its 2 nets');
  await expect(field).toHaveValue('R4 47q in out');
  await field.fill('');

  await typeParts(page, BOOSTER);
  await typeParts(page, ['C9 1u b1 lonely']);
  await expect(page.getByRole('region', { name: 'Parts' })).toContainText(
    'Net lonely is touched only once, by C9.',
  );

  await field.fill('R9 1k ou');
  await field.press('Tab');
  await expect(field).toHaveValue('R9 1k out ');
  await field.press('Escape');

  await page.keyboard.press('Control+Z');
  await expect(page.getByRole('button', { name: 'Change C9' })).toBeHidden();
  await saved(page);

  await page.getByRole('button', { name: 'Change R3' }).click();
  const editing = page.getByLabel('Change R3', { exact: true }).and(page.getByRole('textbox'));
  await expect(editing).toHaveValue('R3 10k vcc c1');
  await editing.fill('R3 12k vcc c1');
  await editing.press('Enter');
  await expect(page.getByRole('row', { name: /R3/ })).toContainText('12 kΩ');
  await saved(page);
});

test('row, symbol and net answer one another, and a moved symbol stays', async ({ page }) => {
  await newUnit(page, 'Linked');
  await typeParts(page, BOOSTER);
  await page.locator('[data-ref="R4"]').click();
  await expect(page.getByRole('row', { name: /R4/ })).toHaveClass(/zb-row-selected/);
  await page.getByRole('row', { name: /R3/ }).getByRole('button', { name: 'net c1' }).click();
  await expect(page.locator('.schematic-wire-selected')).not.toHaveCount(0);

  const symbol = page.locator('[data-ref="R5"] .schematic-catch');
  const before = (await symbol.boundingBox())!;
  await page.mouse.move(before.x + before.width / 2, before.y + before.height / 2);
  await page.mouse.down();
  await page.mouse.move(before.x + before.width / 2 + 60, before.y + before.height / 2 + 20, { steps: 6 });
  await page.mouse.up();
  await saved(page);
  const place = () => page.locator('[data-ref="R5"] .schematic-lines').getAttribute('transform');
  const moved = await place();
  await page.reload();
  await expect(page.locator('[data-ref="R5"]')).toBeVisible();
  expect(await place()).toBe(moved);
});
