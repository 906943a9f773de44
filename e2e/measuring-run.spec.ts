import { asMarked, copyInMeasure, expect, readingField, saved, test } from './support/bench.ts';

for (const [where, viewport] of [
  ['at the bench', { width: 1280, height: 800 }],
  ['on a phone', { width: 390, height: 844 }],
] as const)
  test.describe(where, () => {
    test.use({ viewport });

    test('a full measuring run through the disc preamplifier by the keyboard', async ({ page }) => {
      const unit = await copyInMeasure(page, /^Lark 3/);
      const field = readingField(page);
      await expect(field).toBeFocused();
      await page.getByText('leg lifted', { exact: true }).click();
      await expect(field).toBeFocused();
      const taken = unit.readings.filter((r) => r.partId !== null).length;
      const read = new Set<string>();
      while (!(await page.getByText('Every part is measured.').isVisible())) {
        const ref = (await field.getAttribute('aria-label'))!.replace('Reading of ', '');
        expect(read.has(ref), `${ref} comes twice`).toBe(false);
        read.add(ref);
        await page.keyboard.type(asMarked(unit, ref));
        await page.keyboard.press('Enter');
        await expect(field).toHaveValue('');
        await expect(page.getByRole('status').filter({ hasText: `${ref}:` })).toContainText('within');
      }
      expect(read.size).toBeGreaterThan(15);
      await saved(page);
      const file = await page.request.get(`/api/v1/units/${unit.id}/readings.csv`);
      expect((await file.text()).trim().split('\n')).toHaveLength(1 + taken + read.size);
      // The run is done, and the field still takes what has a name.
      await page.keyboard.type('Q101 be 0.68');
      await page.keyboard.press('Enter');
      await expect(page.getByRole('row').filter({ hasText: 'b-e' })).toContainText('680 mV');
      await saved(page);
    });
  });
