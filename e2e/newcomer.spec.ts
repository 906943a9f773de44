import { expect, test } from './support/bench.ts';

test('a newcomer is told what this is, and each door leads on', async ({ page }) => {
  await page.goto('/');
  const doors = page.getByRole('region', { name: 'Where to begin' });
  await expect(doors).toContainText('Find what is wrong in an amplifier, effect or microphone');

  await doors.getByRole('button', { name: 'Something is broken' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('Find asks one question at a time');
  await dialog.getByLabel('Name').fill('Silent box');
  await dialog.getByLabel('Complaint').fill('No sound at all');
  await dialog.getByRole('button', { name: 'Put it on the bench' }).click();
  await expect(page).toHaveURL(/\/intake$/);
  await expect(page.getByLabel('In the words of who brought it')).toHaveValue('No sound at all');
  // Of a silent unit what is left in a socket is asked for, whatever it is called.
  await expect(page.getByRole('region', { name: 'First checks' })).toContainText('headphone socket');

  await page.keyboard.press('F1');
  const help = page.getByRole('dialog', { name: /Help: Intake|Intake/ });
  await expect(help).toContainText('what must be safe before a screw is turned');
  await page.keyboard.press('Escape');
  await expect(help).toBeHidden();

  await page.goto('/');
  await doors.getByRole('button', { name: 'I want to change something' }).click();
  await page.getByRole('dialog').getByLabel('Name').fill('Loud box');
  await page.getByRole('dialog').getByRole('button', { name: 'Put it on the bench' }).click();
  await expect(page).toHaveURL(/\/trace$/);
  const field = page.getByLabel('Type a part');
  await field.focus();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toContainText('parts a line each');
  await expect(field).toHaveValue('');

  // Anything is gone to from the bench too, and every word is explained.
  await page.goto('/');
  await expect(doors).toBeVisible();
  await expect(async () => {
    await page.keyboard.press('Control+K');
    await expect(page.getByRole('combobox', { name: 'Go to anything' })).toBeFocused({ timeout: 1000 });
  }).toPass();
  await page.keyboard.type('what is esr');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog', { name: 'Bench' })).toContainText(
    'the resistance that a capacitor has inside',
  );
});
