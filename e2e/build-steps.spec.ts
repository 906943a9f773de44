import { copyInMeasure, expect, goTo, saved, test } from './support/bench.ts';

test('a slow switch is planned, built step by step with Space, left and taken up again, and proven', async ({
  page,
}) => {
  test.setTimeout(180_000);
  await copyInMeasure(page, /Plover/);
  await goTo(page, 'Rework');
  const field = page.getByLabel('Type a change');
  await field.fill('Slow switch: +C30 470n c x2 via SW9');
  await field.press('Enter');
  await saved(page);

  await goTo(page, 'Build');
  const atHand = page.getByRole('group', { name: 'The step at hand' });
  await expect(atHand).toContainText('Switch off');
  const count = page.getByText(/^\d+ of \d+ done$/);
  await expect(count).toHaveText(/^0 of /);
  // What is not safe yet cannot be ticked out of turn.
  const list = page.getByRole('group', { name: 'All steps, scrolls' });
  await list.getByRole('button', { name: /Fit C30 470n/ }).click();
  await expect(atHand).toContainText('Before it:');
  await expect(atHand.getByRole('button', { name: /^Done/ })).toBeDisabled();
  await expect(atHand.getByRole('img', { name: /C30: printed 474/ })).toBeVisible();

  await list.getByRole('button', { name: /Switch off/ }).click();
  const next = async (words: RegExp) => {
    await page.keyboard.press('Space');
    await expect(atHand).toContainText(words);
  };
  await next(/Photograph both sides/);
  await next(/Mark the wires/);
  await next(/Loosen what covers/);
  await next(/C30 470n/);
  await saved(page);

  // Interrupted work opens at the next step.
  await page.reload();
  await expect(atHand).toContainText('C30 470n');
  await next(/SW9/);
  await next(/Look at every new joint/);
  await saved(page);
  // With its last step the change is done; its checks and the first power stay.
  await expect(page.getByText(/^6 of \d+ done$/)).toBeVisible();
  const left = Number(/of (\d+)/.exec(await count.innerText())![1]) - 6;
  for (let i = 0; i < left; i += 1) {
    await page.keyboard.press('Space');
    await expect(count).toHaveText(new RegExp(`^${7 + i} of`));
  }
  await saved(page);
  // What is finished stays in sight, and says that it is.
  await expect(page.getByText(/^All \d+ steps are done\./)).toBeVisible();
  await goTo(page, 'Log');
  await expect(page.getByText('Done: Slow switch.')).toBeVisible();
  await expect(page.getByText(/A small signal/).first()).toBeVisible();

  // And back, in reverse.
  await goTo(page, 'Build');
  await page.getByRole('combobox', { name: 'Which work' }).press('ArrowDown');
  await page
    .getByRole('option', { name: 'Take back: Slow switch' })
    .or(page.getByText('Take back: Slow switch').last())
    .last()
    .click();
  await expect(list.getByRole('button', { name: /Take SW9 out/ })).toBeVisible();
  await expect(list.getByRole('button', { name: /Take C30 out/ })).toBeVisible();
});
