import { copyInMeasure, expect, goTo, saved, test } from './support/bench.ts';

test('a diagnosis with two cut tracks cannot be closed until both are back', async ({ page }) => {
  const unit = await copyInMeasure(page, /Drover/);
  await goTo(page, 'Rework');
  await page.getByText('to measure').click();
  const field = page.getByLabel('Type a change');
  const ledger = page.getByRole('button', { name: /^Ledger/ });
  for (const [i, line] of ['cut vb at C1.a as vb2', 'cut d at R6.a as d2'].entries()) {
    await field.fill(line);
    await field.press('Enter');
    await expect(ledger).toHaveText(`${i + 1} to come back`);
  }
  await saved(page);
  const close = async () =>
    (
      await page.request.patch(`/api/v1/units/${unit.id}`, {
        headers: { 'idempotency-key': crypto.randomUUID() },
        data: { place: 'away' },
      })
    ).status();
  expect(await close()).toBe(422);
  await ledger.click();
  const open = page.getByRole('dialog', { name: 'Is everything back?' });
  await expect(open.getByText(/^Bridge the cut at /)).toHaveCount(2);
  await open.getByRole('button', { name: 'It is back' }).first().click();
  await expect(open.getByText(/^Bridge the cut at /)).toHaveCount(1);
  await saved(page);
  expect(await close()).toBe(422);
  await open.getByRole('button', { name: 'It is back' }).click();
  await expect(open.getByText(/Nothing temporary is in force/)).toBeVisible();
  await saved(page);
  expect(await close()).toBe(200);
});
