import { randomUUID } from 'node:crypto';
import { expect, newUnit, saved, test } from './support/bench.ts';

test('a unit is put away, deleted, and brought back', async ({ page }) => {
  const name = `Finished ${randomUUID().slice(0, 6)}`;
  await newUnit(page, name);
  await page.goto('/');
  const link = page.getByRole('link', { name: new RegExp(name) });
  const move = async (words: string) => {
    await page.getByRole('button', { name: `More about ${name}` }).click();
    await page.getByRole('menuitem', { name: words }).click();
    await expect(link).toBeHidden();
    await saved(page);
  };
  await move('Put away');
  const places = page.getByRole('radiogroup', { name: 'Which units' });
  await places.getByText(/^Put away/).click();
  await expect(link).toBeVisible();
  await move('Delete');
  await page.getByRole('button', { name: 'Take back' }).click();
  await expect(link).toBeVisible();
  await saved(page);
  await move('Back to the bench');
  await page.reload();
  await expect(link).toBeVisible();
});
