import { copyInMeasure, expect, goTo, reach, readoutCell, saved, test } from './support/bench.ts';

test('an RC cell in the microphone’s supply, by the keyboard: hum before and after, clipped on, planned, ticked', async ({
  page,
}) => {
  await copyInMeasure(page, /Plover/);
  await reach(page, 'Part: V1');
  await page.keyboard.press('Alt+e');
  await expect(page.getByLabel('Type a change')).toBeFocused();
  const ways = page.getByRole('region', { name: 'Ways of doing' });
  await ways.getByRole('button', { name: 'RC cell in the supply' }).press('Enter');
  const lost = ways.getByLabel('May lose');
  await lost.fill('1 V');
  await ways.getByLabel('Hum down by').fill('40 dB');
  // What is left, what comes down, what gets warm, and the trap are told before anything is planned.
  await expect(ways.getByText(/V of 12 V are left, and ripple at 100 Hz comes down by/)).toBeVisible();
  await expect(ways.getByText(/of heat; rate C\d+ 18 V or more/)).toBeVisible();
  await expect(ways.getByText(/headroom and rest positions come down/)).toBeVisible();
  await ways.getByRole('button', { name: 'Clip it on first' }).press('Enter');
  const ledger = page.getByRole('button', { name: /^Ledger/ });
  await expect(ledger).toHaveText('1 to come back');
  await saved(page);
  const heard = ways.getByLabel('What it was like');
  await heard.fill('banana');
  await expect(ways.getByText('Say less, more, half, twice, or x 1.5.')).toBeVisible();
  await ways.getByRole('button', { name: 'Just right, plan it' }).press('Enter');
  await expect(ledger).toHaveText('0 to come back');
  await expect(page.getByRole('button', { name: 'RC cell', exact: true }).first()).toBeVisible();
  await saved(page);
  const hum = (layer: 'found' | 'planned') => readoutCell(page, 'Hum at the console', layer).innerText();
  const volts = (text: string) => parseFloat(text) * (text.includes('µ') ? 1e-6 : 1e-3);
  await expect.poll(async () => volts(await hum('planned'))).toBeLessThan(volts(await hum('found')) / 40);
  // Its resistor comes out of the drawer when it is ticked.
  await page.getByRole('button', { name: 'Done: RC cell' }).first().press('Enter');
  await saved(page);
  await goTo(page, 'Log');
  await expect(page.getByText(/Done: RC cell\. From the drawer: R\d+ /)).toBeVisible();
});
