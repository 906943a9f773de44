import { copyInMeasure, expect, openUnit, readingField, saved, test } from './support/bench.ts';

test('the voltages map: computed beside measured, on the drawing, in the list and on the board', async ({
  page,
}) => {
  await copyInMeasure(page, /^Lark 3/);
  const field = readingField(page);
  await page.getByText('Voltages', { exact: true }).click();
  const row = page.getByRole('row').filter({ has: page.getByRole('button', { name: 'Measure net e1L' }) });
  await expect(row).toContainText('139 mV');
  // Choosing a net begins the line; the value follows.
  await row.getByRole('button').click();
  await expect(field).toHaveValue('e1L ');
  await page.keyboard.type('0.41V');
  await page.keyboard.press('Enter');
  await expect(row).toContainText('410 mV');
  await expect(page.getByRole('status').filter({ hasText: 'e1L' })).toContainText(
    'above the computed 139 mV',
  );
  await expect(page.getByText(/µA through R104 at Q101 e, computed 124 µA/)).toBeVisible();
  await expect(page.locator('.schematic-flag-out')).toContainText('139 mV, is 410 mV');
  await field.fill('vcc ripple 12mV');
  await field.press('Enter');
  await expect(page.getByRole('status').filter({ hasText: 'ripple' })).toContainText('good');
  await saved(page);

  await openUnit(page, /Wren/, 'Measure');
  await page.getByRole('radiogroup', { name: 'Circuit or board' }).getByText('Board').click();
  const board = page.getByRole('region', { name: 'Board' });
  await expect(board).toContainText('12 V');
  await board.getByRole('button', { name: /Filtered supply/ }).click();
  await expect(field).toHaveValue('vf ');
  await page.keyboard.type('6.2');
  await page.keyboard.press('Enter');
  await expect(board).toContainText('10.8 V, is 6.2 V');
  await saved(page);
  await page.keyboard.press('Control+Z');
  await expect(board).not.toContainText('is 6.2 V');
});
