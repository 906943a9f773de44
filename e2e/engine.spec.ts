import { expect, openUnit, readoutCell, test } from './support/bench.ts';

test('spread, noise, switch-on and stability are computed when asked for, and say one sentence each', async ({
  page,
}) => {
  await openUnit(page, /Drover/);
  await expect(readoutCell(page, 'Bass corner', 'found')).toHaveClass(/zb-out/);
  await expect(readoutCell(page, 'Distortion at 100 mV', 'marked')).toHaveText('20.6 %');
  const note = page.getByRole('region', { name: 'Readouts' }).getByRole('status');
  for (const [view, sentence] of [
    ['Spread', /Nine of ten units of these parts lie within \d+\.\d dB/],
    ['Noise', /A-weighted at d.*most of it from/],
    ['Switch-on', /Peaks at .* after switch-on, then rests/],
    ['Stability', /It is stable/],
  ] as const) {
    await page.getByText(view, { exact: true }).click();
    await expect(note).toContainText(sentence);
  }
});

test('an oscillator says at what rate it starts, and its rate is read', async ({ page }) => {
  // Its rate takes runs in time, on every layer: long, where other work is done beside it.
  test.setTimeout(400_000);
  await openUnit(page, /Heron/);
  await expect(readoutCell(page, 'Pan rate', 'marked')).toHaveText(/1\.2\d Hz/, { timeout: 300_000 });
  await page.getByText('Stability', { exact: true }).click();
  await expect(page.getByRole('region', { name: 'Readouts' }).getByRole('status')).toContainText(
    /This oscillates: it starts at about 1\.9\d Hz/,
  );
});
