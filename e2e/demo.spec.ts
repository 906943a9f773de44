import { expect, goTo, openUnit, readoutCell, saved, test } from './support/bench.ts';

test('the demo unit shows why its left channel is dull and quiet, and how to mend it', async ({ page }) => {
  await openUnit(page, /Lark 3 disc preamp/, 'Measure');
  const rows = page.getByRole('region', { name: 'Readings' }).getByRole('row');
  await expect(rows.nth(1)).toContainText('C102');
  await expect(rows.nth(2)).toContainText('R104');
  await expect(rows.nth(3)).toContainText('R109');
  await expect(readoutCell(page, 'Gain at 1 kHz, left', 'found')).toHaveClass(/zb-out/);
  await expect(readoutCell(page, 'Gain at 1 kHz, right', 'found')).not.toHaveClass(/zb-out/);

  await goTo(page, 'Rework');
  await page.getByRole('button', { name: 'Find values' }).click();
  const best = page.getByLabel('Values found').getByRole('listitem').first();
  await expect(best).toContainText('back in range');
  await best.getByRole('button', { name: 'Plan it' }).click();
  await saved(page);
  await expect(readoutCell(page, 'Gain at 1 kHz, left', 'planned')).not.toHaveClass(/zb-out/);
  await page.keyboard.press('Control+Z');
  await expect(readoutCell(page, 'Gain at 1 kHz, left', 'planned')).toHaveClass(/zb-out/);
});

test('a value turned by hand moves every readout at once, and is planned only when asked', async ({
  page,
}) => {
  await openUnit(page, /Lark 3 disc preamp/, 'Rework');
  const dial = page.getByRole('spinbutton', { name: 'Value of R204' });
  await dial.focus();
  await page.keyboard.press('ArrowDown');
  await expect(dial).toHaveAttribute('aria-valuetext', '560 Ω');
  await expect(readoutCell(page, 'Gain at 1 kHz, right', 'planned')).toContainText('39');
  await page.getByRole('button', { name: 'Drop', exact: true }).click();
  await expect(dial).toHaveAttribute('aria-valuetext', '680 Ω');
  await expect(readoutCell(page, 'Gain at 1 kHz, right', 'planned')).toContainText('37.4 dB');
});
