import { copyInMeasure, expect, goTo, reach, saved, test } from './support/bench.ts';

test('a block that is disconnected in the search stands on the ledger until it is back, and every test meanwhile says so', async ({
  page,
}) => {
  await copyInMeasure(page, /Wren talkback/);
  await reach(page, 'Stage: Find');
  const search = page.getByRole('region', { name: 'Search', exact: true });
  const tests = page.getByLabel('Tests made');
  const ledger = page.getByRole('button', { name: /^Ledger: / });
  await expect(ledger).toHaveAccessibleName('Ledger: nothing to come back');

  const ask = async (question: string) => {
    await search.getByRole('button', { name: question, exact: true }).press('Enter');
    await expect(search.locator('.find-question-words')).toContainText(question);
  };
  await ask('Is the supply right at Supply after the reservoir?');
  // A block is chosen as disconnected; one key puts it on the ledger.
  const block = search.getByRole('combobox', { name: 'Block disconnected' });
  await block.focus();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('option').first()).toBeAttached();
  await page.keyboard.press('Enter');
  const offer = search.getByRole('button', { name: /keep it on the ledger until it is back/ });
  await expect(offer).toBeVisible();
  const words = (await offer.innerText()).replace(/:.*$/s, '');
  await page.keyboard.press('Alt+l');
  await expect(ledger).toHaveAccessibleName('Ledger: 1 to come back');
  await expect(offer).toBeHidden();
  await expect(search).toContainText(`Still so, by the ledger: ${words}`);
  await saved(page);

  // The next test carries it without a word, and the one after a reload as well.
  const answer = async () => {
    await page.keyboard.press('g');
    await saved(page);
  };
  await answer();
  await expect(tests.getByText(/\(disconnected: /)).toHaveCount(1);
  await page.reload();
  await expect(search).toContainText(`Still so, by the ledger: ${words}`);
  await ask('Is the supply right at Filtered supply?');
  await answer();
  await expect(tests.getByText(/\(disconnected: /)).toHaveCount(2);

  // Closing: the ledger is one press away in every stage, and says how it is taken back.
  await goTo(page, 'Log');
  await ledger.focus();
  await page.keyboard.press('Enter');
  const open = page.getByRole('dialog', { name: 'Is everything back?' });
  await expect(open).toContainText(`${words}`);
  await expect(open.getByText(/Bridge the cut|Put it back as it was/)).toBeVisible();
  await open.getByRole('button', { name: 'It is back' }).press('Enter');
  await saved(page);
  await expect(ledger).toHaveAccessibleName('Ledger: nothing to come back');
  await page.keyboard.press('Escape');
  await goTo(page, 'Find');
  await expect(search).not.toContainText('Still so, by the ledger');
});
