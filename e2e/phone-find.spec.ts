import { expect, goTo, saved, test } from './support/bench.ts';

test.use({ viewport: { width: 390, height: 844 }, hasTouch: true });

test('on a phone, with one thumb: a test is answered, seen in the history, and taken back', async ({
  page,
}) => {
  await page.goto('/');
  await page
    .getByRole('link', { name: /Wren talkback/ })
    .first()
    .tap();
  await goTo(page, 'Find');
  const question = page.locator('.hs-question-words');
  await expect(question).toBeVisible();
  const asked = await question.innerText();
  const answer = page.locator('.hs-answer').first();
  const box = (await answer.boundingBox())!;
  // A thumb's size, within its reach.
  expect(box.height).toBeGreaterThanOrEqual(48);
  expect(box.y + box.height).toBeLessThan(844);
  await answer.tap();
  await expect(question).not.toHaveText(asked);
  await saved(page);
  const history = page.locator('.hs-history li');
  await expect(history).toHaveCount(1);
  await page.getByRole('button', { name: /^Take back: / }).tap();
  await expect(page.locator('.hs-history .hs-undone')).toHaveCount(1);
  await expect(question).toHaveText(asked);
});
