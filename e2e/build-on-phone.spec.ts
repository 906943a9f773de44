import { copyInMeasure, expect, saved, test } from './support/bench.ts';

test.use({ viewport: { width: 390, height: 844 }, hasTouch: true });

test('the steps of a repair are ticked with one thumb, wires are typed, and a panel is looked at before it is drilled', async ({
  page,
}) => {
  test.setTimeout(120_000);
  const unit = await copyInMeasure(page, /Plover/);
  await page.request.post(`/api/v1/units/${unit.id}/changes`, {
    headers: { 'idempotency-key': crypto.randomUUID() },
    data: {
      change: {
        id: 'm1',
        name: 'Fresh coupling',
        purpose: 'repair',
        state: 'planned',
        steps: [{ do: 'fit', ref: 'C3', value: '10u', part: { voltage: 25 } }],
      },
    },
  });
  await page.goto(`/units/${unit.id}/build`);
  const atHand = page.getByRole('group', { name: 'The step at hand' });
  const done = atHand.getByRole('button', { name: /^Done/ });
  await expect(atHand).toContainText('Switch off');
  for (const words of ['Photograph', 'Mark the wires', 'Loosen', 'Take C3', 'Clear the holes', 'Fit C3']) {
    await done.tap();
    await expect(atHand).toContainText(words);
  }
  await expect(atHand).toContainText('Which way round: plus to');
  await done.tap();
  await expect(atHand).toContainText('Look at every new joint');
  await saved(page);

  await page.getByText('Wiring', { exact: true }).tap();
  const entry = page.getByLabel('A wire: its colour and two ends');
  await entry.fill('green MK1.p');
  await entry.press('Enter');
  await expect(page.getByRole('alert')).toContainText('A wire has two ends');
  await entry.fill('red V1.plus board.vcc 80mm');
  await entry.press('Enter');
  await expect(page.getByText('0 leaves the board to V1.minus, and no wire carries it.')).toBeVisible();
  await entry.fill('black V1.minus board.0');
  await entry.press('Enter');
  await expect(page.getByText(/Every net that leaves the board has its wire/)).toBeVisible();
  await saved(page);

  // On the map two taps put a wire; it gets the colour of its net, and is taken out where it is chosen.
  await page.getByRole('button', { name: 'V1.plus, net vcc' }).tap();
  await expect(page.getByText('From V1.plus, on vcc: tap where its wire goes.')).toBeVisible();
  await page.getByRole('button', { name: 'V1.minus, net 0' }).tap();
  await expect(page.getByText(/wire w3 joins vcc at V1.plus to 0 at V1.minus/)).toBeVisible();
  await page.getByRole('button', { name: 'Take wire w3 out' }).tap();
  await expect(page.getByText(/Every net that leaves the board has its wire/)).toBeVisible();
  await saved(page);

  await page.getByText('Fit', { exact: true }).tap();
  await page.getByRole('button', { name: 'A panel or lid' }).tap();
  const line = page.getByLabel('A control, or something tall under the panel');
  for (const text of ['T1 60 40 body 30x30 tall 20', 'SW1 65 40']) {
    await line.fill(text);
    await line.press('Enter');
    await expect(line).toHaveValue('');
  }
  // 18 mm deep over 20 mm in 30 mm: 8 mm too deep.
  await expect(page.getByText(/SW1 meets T1 under the panel: 8 mm too deep/)).toBeVisible();
  await saved(page);
});
