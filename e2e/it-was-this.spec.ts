import { copyInMeasure, expect, goTo, saved, test } from './support/bench.ts';

test('a first check that found it ends the search with its cause, asks for proof, and stands in the log', async ({
  page,
}) => {
  await copyInMeasure(page, /^Wren/);
  await goTo(page, 'Intake');
  await page.getByRole('button', { name: /^It was this: Every volume up/ }).click();
  await expect(
    page.getByText(/^It was a control that is only turned down\. Found by a first check/),
  ).toBeVisible();
  await saved(page);
  await goTo(page, 'Find');
  const search = page.getByRole('region', { name: 'Search', exact: true });
  const cause = page.getByRole('region', { name: 'Cause' });
  await expect(cause).toContainText('It was a control that is only turned down');
  await expect(search.getByText('the cause is found')).toBeVisible();
  await expect(page.getByLabel('Choose another test')).toBeHidden();
  // It was not: the search goes on, and the check counts as fine.
  await cause.getByRole('button', { name: 'It was not that' }).click();
  await expect(page.getByLabel('Choose another test')).toBeVisible();
  // Damage is marked on the photo, blamed, and proved.
  await page.getByText('Photo', { exact: true }).click();
  await page.getByLabel('Mark damage').click();
  await page.getByTitle('cracked joint', { exact: true }).click();
  await page.locator('.photo-board-photo-picture').click({ position: { x: 120, y: 90 } });
  await page.getByRole('button', { name: /^It was this: cracked joint/ }).click();
  await expect(cause).toContainText('cracked joint');
  await cause.getByRole('button', { name: 'It is right now' }).click();
  await expect(cause).toContainText('Found and proved');
  await saved(page);
  await goTo(page, 'Log');
  await expect(page.getByText(/^It was not that: It was a control that is only turned down/)).toBeVisible();
  await expect(page.getByText(/^Seen on the board: cracked joint/)).toBeVisible();
  await expect(page.getByText(/^Proved, it is right now\. cracked joint/)).toBeVisible();
});
