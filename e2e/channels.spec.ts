import { copyInMeasure, expect, goTo, reach, saved, test } from './support/bench.ts';

test('a pad in the talkback: what it takes away and what it loads with, one value planned', async ({
  page,
}) => {
  await copyInMeasure(page, /Wren/);
  await goTo(page, 'Rework');
  await reach(page, 'Part: C3 (capacitor)');
  const ways = page.getByRole('region', { name: 'Ways of doing' });
  await ways.getByRole('button', { name: 'Pad between unequal levels' }).click();
  await ways.getByLabel('Down by').fill('20 dB');
  const told = ways.getByText(/in series and .* to the ground make .* dB with what follows/);
  await expect(told).toBeVisible();
  await expect(told).toContainText(/make −(19|20)/);
  await ways.getByLabel('Down by').fill('-3 dB');
  await expect(ways.getByText('A pad takes away more than 0 dB.')).toBeVisible();
  await ways.getByLabel('Down by').fill('20 dB');
  await expect(told).toBeVisible();
  await ways.getByRole('button', { name: 'Plan it' }).click();
  await expect(page.getByRole('button', { name: 'Pad 20 dB', exact: true })).toBeVisible();
  await saved(page);
});

test('crossed channels: two pins swapped, drawn, and the way back told', async ({ page }) => {
  await copyInMeasure(page, /Lark/);
  await goTo(page, 'Rework');
  await reach(page, 'Part: R107 (resistor)');
  const ways = page.getByRole('region', { name: 'Ways of doing' });
  const swap = ways.getByRole('button', { name: 'Swap two channels at this part and its twin' });
  await swap.click();
  await expect(ways.getByText(/R107\.\w+ .*R207\.\w+/).first()).toBeVisible();
  const changes = page.getByRole('region', { name: 'Changes' });
  await ways.getByRole('button', { name: 'Plan it' }).click();
  await expect(changes.getByRole('button', { name: 'Channels swapped', exact: true })).toBeVisible();
  await saved(page);
  await changes.getByRole('button', { name: 'The way back' }).click();
  await expect(changes.getByText(/R107\.a/).last()).toBeVisible();
});

test('several goals at once: all that is wanted, from the drawer first, with the yield of such builds', async ({
  page,
}) => {
  await copyInMeasure(page, /Lark/);
  await goTo(page, 'Rework');
  await page.getByRole('button', { name: /^All \d+ wanted$/ }).click();
  await page.getByLabel('Wanted value 2').fill('nonsense');
  await expect(page.getByText('"nonsense" cannot be read', { exact: false })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Find values' })).toBeDisabled();
  await page.getByLabel('Wanted value 2').fill('37.5 ± 1 dB, wished 2');
  await page.getByRole('button', { name: 'Find values' }).click();
  const best = page.getByLabel('Values found').getByRole('listitem').first();
  await expect(best).toContainText(/\d of \d inside/, { timeout: 60_000 });
  await expect(best).toContainText('% of such builds inside');
  await best.getByRole('button').first().click();
  await expect(best).toContainText('Try first:');
  await best.getByRole('button', { name: 'Plan it' }).click();
  await saved(page);
  await expect(
    page
      .getByRole('region', { name: 'Changes' })
      .getByRole('button', { name: /^Done:/ })
      .first(),
  ).toBeVisible();
});
