import { copyInMeasure, expect, goTo, saved, test } from './support/bench.ts';

test.use({ viewport: { width: 390, height: 844 }, hasTouch: true });

test('on a phone, with one thumb: a test is answered, seen in the history, and taken back', async ({
  page,
}) => {
  await copyInMeasure(page, /^Wren talkback/);
  await goTo(page, 'Find');
  const question = page.locator('.find-question-words');
  await expect(question).toBeVisible();
  // What other journeys tested comes along with the copy: what counts is what this one adds.
  const history = page.locator('.find-history li');
  const undone = page.locator('.find-history .zb-undone');
  const [made, taken] = [await history.count(), await undone.count()];
  const asked = await question.innerText();
  const answer = page.locator('.find-answer').first();
  const box = (await answer.boundingBox())!;
  // A thumb's size, within its reach.
  expect(box.height).toBeGreaterThanOrEqual(48);
  expect(box.y + box.height).toBeLessThan(844);
  await answer.tap();
  await expect(question).not.toHaveText(asked);
  await saved(page);
  await expect(history).toHaveCount(made + 1);
  await page
    .getByRole('button', { name: /^Take back: / })
    .first()
    .tap();
  await expect(undone).toHaveCount(taken + 1);
  await expect(question).toHaveText(asked);
});
