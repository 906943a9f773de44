import { expect, goTo, newUnit, saved, test, typeParts } from './support/bench.ts';

test('where the leads decide, one key tells which pin had the red one; the habit is remembered and shown', async ({
  page,
}) => {
  await newUnit(page, 'Two clamps');
  await typeParts(page, ['R1 100k 5% x 0', 'D1 1N4148 x 0', 'R2 100k 5% y 0', 'D2 1N4148 y 0']);
  await goTo(page, 'Measure');
  const field = page.getByRole('textbox', { name: /^Reading of/ });
  const row = (ref: string) => page.getByRole('row', { name: new RegExp(`^Measure ${ref} `) });
  await field.fill('R1 98k in circuit');
  await field.press('Enter');
  await expect(page.getByText('Red lead of R1 on which pin?')).toBeVisible();
  await expect(row('R1')).toContainText('red lead?');
  // The diode blocks with the red lead on its cathode's side.
  await field.press('ArrowRight');
  await expect(row('R1')).toContainText('in');
  await expect(page.getByRole('button', { name: /^b, at 0/ })).toHaveAttribute('aria-pressed', 'true');
  await field.fill('R2 97k in circuit');
  await field.press('Enter');
  await expect(page.getByText('Red lead of R2 taken at b, as before:')).toBeVisible();
  await expect(row('R2')).not.toContainText('red lead?');
  await saved(page);
  await page.reload();
  await expect(row('R1')).not.toContainText('red lead?');
  await goTo(page, 'Log');
  await expect(page.getByText('Of the reading of R1: the red lead was on pin b.')).toBeVisible();
});
