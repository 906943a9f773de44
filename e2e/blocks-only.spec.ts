import { expect, goTo, newUnit, saved, test } from './support/bench.ts';

test('a unit without a schematic is searched by blocks that are typed', async ({ page }) => {
  await newUnit(page, 'Choir mixer');
  await page.getByText('Path', { exact: true }).click();
  const line = page.getByLabel('Type blocks and links');
  const type = async (text: string) => {
    await line.fill(text);
    await line.press('Enter');
  };
  await type('Microphone > Input stage > Fader control > Mixing stage > Output socket');
  await expect(line).toHaveValue('');
  await type('supply: Adapter > Input stage, Mixing stage');
  await type('light: a > b');
  await expect(page.getByRole('alert')).toContainText('"light" is not what a link carries');
  await line.fill('');
  await saved(page);
  await expect(page.getByRole('group', { name: 'Path of 6 blocks' })).toBeVisible();

  await goTo(page, 'Find');
  const words = page.locator('.find-question-words');
  const search = page.getByRole('region', { name: 'Search', exact: true });
  await expect(words).toBeVisible();
  const seen = async (question: RegExp, key: string) => {
    await page.getByRole('combobox', { name: 'Choose another test' }).click();
    await page.locator('.ant-select-item-option', { hasText: question }).first().click();
    await expect(words).toContainText(question);
    await words.click();
    await page.keyboard.press(key);
  };
  await seen(/signal there at Microphone to Input stage/, 'g');
  await seen(/signal there at Input stage to Fader control/, 'g');
  await seen(/signal there at Fader control to Mixing stage/, 'n');
  await expect(page.locator('.zb-conviction')).toContainText('Fader control');
  // Two tests that cannot both be right are said to be so.
  await seen(/signal there at Mixing stage to Output socket/, 'g');
  await expect(search.getByRole('alert')).toContainText('cannot both be right');
  await saved(page);
  await page.keyboard.press('Control+Z');
  await expect(search.getByRole('alert')).toHaveCount(0);
  await page.keyboard.press('c');
  await expect(page.getByRole('heading', { name: 'Convicted' })).toBeVisible();
  await saved(page);
  await goTo(page, 'Log');
  await expect(page.getByText('Tested Fader control to Mixing stage: nothing there.').first()).toBeVisible();
});

test('a template brings the usual path, and a mains side is never probed live', async ({ page }) => {
  await newUnit(page, 'Kitchen amplifier');
  await goTo(page, 'Intake');
  await page.getByRole('combobox', { name: 'What in it can hurt' }).click();
  await page.getByRole('combobox', { name: 'What in it can hurt' }).fill('mains');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await expect(page.getByLabel('Before you open it')).toContainText('licensed people');
  await saved(page);
  await goTo(page, 'Trace');
  await page.getByText('Path', { exact: true }).click();
  await page.getByRole('combobox', { name: 'Begin with the usual path of a unit' }).click();
  await page.locator('.ant-select-item-option', { hasText: 'Stereo amplifier' }).click();
  await expect(page.getByRole('group', { name: 'Path of 19 blocks' })).toBeVisible();
  await saved(page);
  await goTo(page, 'Find');
  await page.getByRole('combobox', { name: 'Choose another test' }).fill('Fuse to Mains');
  await page.locator('.ant-select-item-option', { hasText: 'Fuse to Mains transformer' }).first().click();
  await expect(page.getByRole('alert')).toContainText('nothing is measured there live');
});
