import { expect, newUnit, saved, test, typeParts } from './support/bench.ts';

test('what the server refuses is kept with its reason, and what fails for now is sent again; neither stops the rest', async ({
  page,
}) => {
  await newUnit(page, 'Refusals');
  await typeParts(page, ['R1 10k a 0']);
  let failures = 0;
  await page.route('**/api/v1/units/*/parts', async (route) => {
    const text = route.request().postData() ?? '';
    if (text.includes('R7'))
      return route.fulfill({
        status: 422,
        contentType: 'application/problem+json',
        body: JSON.stringify({
          type: 'about:blank',
          title: 'Cannot be used',
          status: 422,
          detail: 'Nobody wants R7.',
          hint: 'Call it R8.',
          code: 'invalid',
        }),
      });
    failures += 1;
    if (failures <= 3)
      return route.fulfill({ status: [429, 500, 200][failures - 1]!, body: 'not what was asked for' });
    return route.continue();
  });
  const sheet = page.getByLabel('Type a part');
  for (const line of ['R7 1k a 0', 'R2 22k a 0']) {
    await sheet.fill(line);
    await sheet.press('Enter');
  }
  // R2 went through on the fourth try; R7 waits to be looked at.
  await expect(page.locator('.saving-saving')).toHaveAttribute('data-state', 'parked');
  expect(failures).toBe(4);
  await expect(page.getByRole('button', { name: 'Change R2' })).toBeVisible();
  await page.reload();
  await page.getByRole('button', { name: '1 refused' }).click();
  const drawer = page.getByRole('dialog', { name: 'Not taken by the server' });
  await expect(drawer).toContainText('R7 1k a 0');
  await expect(drawer).toContainText('Nobody wants R7.');
  await page.unrouteAll();
  await drawer.getByRole('button', { name: 'Send it again' }).click();
  await saved(page);
  await drawer.getByRole('button', { name: 'Close' }).click();
  await expect(page.getByRole('button', { name: 'Change R7' })).toBeVisible();
});
