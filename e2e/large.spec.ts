import { randomUUID } from 'node:crypto';
import type { WriteAnswer } from '@zemble/contract';
import { expect, saved, test } from './support/bench.ts';

const PARTS = 1200;

test('a unit of over a thousand parts is typed into, looked through and drawn while it answers', async ({
  page,
}) => {
  const parts: object[] = [{ ref: 'V1', kind: 'supply', marked: 9, pins: { plus: 'n0', minus: '0' } }];
  for (let i = 1; parts.length < PARTS; i += 1)
    parts.push(
      { ref: `R${i}`, kind: 'resistor', marked: 1000, pins: { a: `n${i - 1}`, b: `n${i}` } },
      { ref: `C${i}`, kind: 'capacitor', marked: 1e-8, pins: { a: `n${i}`, b: '0' } },
    );
  const file = {
    format: 'zemble/unit',
    version: 1,
    unit: { name: 'Ladder' },
    circuit: { ground: '0', parts },
  };
  const answer = await page.request.post('/api/v1/units/import', {
    headers: { 'idempotency-key': randomUUID() },
    data: { text: JSON.stringify(file) },
  });
  const { unitId } = (await answer.json()) as WriteAnswer;
  await page.goto(`/units/${unitId}/trace`);
  const field = page.getByLabel('Type a part');
  await field.fill('R9999 47k n3 0');
  await field.press('Enter');
  // The row that was added is brought into sight at the end of a list of which only a part is there.
  await expect(page.getByRole('button', { name: 'Change R9999' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Change R1', exact: true })).toHaveCount(0);
  await saved(page);
  const drawing = page.getByRole('group', { name: /^Circuit of 12\d\d parts/ });
  await expect(drawing).toBeVisible();
  // What is chosen in the list is drawn, and far from it nothing is.
  await expect(drawing.locator('[data-ref="R9999"]')).toBeVisible();
  expect(await drawing.locator('[data-ref]').count()).toBeLessThan(600);
  await page.getByRole('button', { name: 'Fit the drawing' }).click();
  await expect(page.getByRole('button', { name: 'Fit the drawing' })).toBeDisabled();
  await page.getByRole('button', { name: 'Larger' }).click();
  await page.getByRole('button', { name: 'Go to R9999' }).click();
  await expect(page.getByRole('button', { name: 'Fit the drawing' })).toBeEnabled();
});
