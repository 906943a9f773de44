import { copyInMeasure, expect, goTo, saved, test } from './support/bench.ts';

test('a package with two opamps, and the channel that mirrors the other, are confirmed by the keyboard', async ({
  page,
}) => {
  await copyInMeasure(page, /^Dunlin line driver/);
  await goTo(page, 'Trace');
  await page.getByText('Beeps', { exact: true }).click();
  const question = page.getByRole('group', { name: 'The next beep' });
  const field = page.getByLabel('Type a part or what beeps');
  await field.focus();
  // What the left channel says of the right one comes first, a pin of the shared package by its number.
  await expect(question).toContainText('So it is in the other channel');
  await expect(question).toContainText(/U1 pin 7, second from the notch, right side/);
  await field.press('Enter');
  await expect(page.getByRole('row', { name: /U1 pin 7, R102\.b, R104\.a/ })).toBeVisible();
  await saved(page);

  // One of the right channel lies elsewhere: that is told, and the rest goes on.
  await expect(question).toContainText('So it is in the other channel');
  const asked = await question.innerText();
  const first = question.locator('button[class*=end]').first();
  await first.click();
  await question.getByRole('button', { name: /^(None beeps|All but)/ }).click();
  await expect(page.getByText(/^The channels differ:/)).toBeVisible();
  await expect(question).not.toContainText(asked);

  // A beep that cannot be: told with its chain, and gone with the beep that was wrong.
  await field.fill('R102.b # U1.7');
  await field.press('Enter');
  const alert = page.getByRole('alert').filter({ hasText: 'does not beep with' });
  await expect(alert).toContainText(
    'R102.b does not beep with U1B.out, it was said; but R102.b beeps with U1B.out.',
  );
  await alert.getByRole('button', { name: 'Withdraw: R102.b does not beep with U1B.out.' }).click();
  await expect(alert).toHaveCount(0);
  await saved(page);

  // Taken back, the nets are as they were.
  await page.keyboard.press('Control+z');
  await expect(alert).toBeVisible();
});
