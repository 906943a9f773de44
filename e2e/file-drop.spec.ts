import { readFile } from 'node:fs/promises';
import { expect, openUnit, test } from './support/bench.ts';

test('a unit file is dropped onto the bench and opens', async ({ page }) => {
  await openUnit(page, /Heron/, 'Log');
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Export the unit' }).click();
  const text = await readFile((await (await download).path())!, 'utf8');
  const renamed = JSON.stringify({
    ...(JSON.parse(text) as object),
    unit: { name: 'Dropped from above' },
  });
  await page.goto('/');
  const files = await page.evaluateHandle((content) => {
    const transfer = new DataTransfer();
    transfer.items.add(new File([content], 'heron.zemble.json', { type: 'application/json' }));
    return transfer;
  }, renamed);
  const bench = page.locator('.bench-bench');
  await bench.dispatchEvent('dragover', { dataTransfer: files });
  await bench.dispatchEvent('drop', { dataTransfer: files });
  await expect(page.getByText('Dropped from above').first()).toBeVisible();
  await expect(page.getByRole('group', { name: /^Circuit of/ })).toBeVisible();
});
