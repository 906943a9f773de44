import { expect, goTo, openUnit, saved, test } from './support/bench.ts';

test('hum and no speech: from the complaint to the part, with evidence taken back on the way', async ({
  page,
}) => {
  await openUnit(page, /Wren talkback/);

  // Intake: a sound pointed at, a first check made.
  await goTo(page, 'Intake');
  await expect(page.getByRole('checkbox', { name: 'hum', exact: true })).toBeChecked();
  await page.getByRole('button', { name: /^Fine: Both ends of every cable/ }).click();
  await expect(page.getByRole('region', { name: 'First checks' })).toContainText('1 of');
  await expect(page.getByRole('region', { name: 'Before you open it' })).toContainText('harmless to touch');
  await saved(page);

  // Find: every test is one key.
  await goTo(page, 'Find');
  await expect(page.locator('.find-history')).toContainText(
    'Both ends of every cable really plugged; another cable tried: fine',
  );
  const search = page.getByRole('region', { name: 'Search', exact: true });
  const ask = async (question: string) => {
    await search.getByRole('button', { name: question, exact: true }).click();
    await expect(search.locator('.find-question-words')).toContainText(question);
  };
  await ask('Is the supply right at Supply after the reservoir?');
  await page.keyboard.press('b');
  await page.keyboard.press('g');
  await expect(page.getByLabel('Tests made')).toContainText(
    'Tested Supply after the reservoir (probe proved): it is there.',
  );
  // A wrong key, and it is taken back without being lost.
  await ask('Is the supply right at Filtered supply?');
  await page.keyboard.press('g');
  await saved(page);
  await page.keyboard.press('Control+Z');
  await expect(page.locator('.find-history .zb-undone')).toContainText(
    'Tested Filtered supply: it is there.',
  );
  await ask('Is the supply right at Filtered supply?');
  await page.keyboard.press('n');
  // The first stage could drag it down: it is disconnected, and looked at again.
  await expect(search).toContainText('It could drag down the supply of Filtered supply');
  await ask(
    'Switched off and discharged, disconnect First stage; then: is the supply right at Filtered supply?',
  );
  await page.keyboard.press('n');
  await expect(page.getByLabel('Tests made')).toContainText('(disconnected: first)');
  await expect(page.locator('.zb-conviction')).toContainText('Supply filter of the first stage');
  await page.keyboard.press('c');

  // Its parts: without any voltage behind the filter the shorted capacitor and the open resistor show the same.
  const volts = page.getByRole('textbox', { name: /^Voltage at/ });
  await expect(search).toContainText('Which part of Supply filter of the first stage?');
  await expect(search).toContainText('C2 short');
  await expect(page.getByRole('textbox', { name: 'Voltage at vf' })).toBeVisible();
  await volts.fill('0.002');
  await volts.press('Enter');
  const first = search.locator('.zb-suspects tbody tr').first();
  await expect(first).toContainText('C2 short');
  await expect(first).toContainText('R1 open');
  // No voltage tells them apart: a reading in circuit would. A level with a tone going in counts as well.
  const reading = page.getByRole('textbox', { name: /^Reading of (C2|R1)/ });
  await expect(reading).toBeVisible();
  await expect(search).toContainText('Switched off and discharged: what does');
  await reading.press('ArrowDown');
  await expect(reading.or(volts).first()).toBeVisible();
  while (await reading.isVisible()) await reading.press('ArrowDown');
  await volts.fill('0.1mV rms');
  await volts.press('Enter');
  await expect(search).toContainText(/Compared: .*rms/);
  await page.getByRole('button', { name: 'Convict C2' }).first().click();
  await saved(page);

  // Rework has it on its list, and the search remembers after a reload.
  await goTo(page, 'Rework');
  await expect(page.getByRole('region', { name: 'Convicted' })).toContainText('C2: short. To be replaced.');
  await expect(page.getByRole('region', { name: 'Convicted' })).toContainText('planned 220 µF');
  await page.reload();
  await expect(page.getByRole('region', { name: 'Convicted' })).toContainText('C2: short.');
});

test('a point is the same on path, photo and circuit', async ({ page }) => {
  await openUnit(page, /Wren talkback/, 'Trace');
  const traced = page.getByRole('radiogroup', { name: 'What is traced' });
  const beside = page.getByRole('radiogroup', { name: 'What is seen beside it' });
  await traced.getByText('Path').click();
  await beside.getByText('Photos').click();
  await expect(page.getByRole('img', { name: 'Photo: Board, parts side' })).toBeVisible();
  await page.getByRole('button', { name: 'Point 8, Filtered supply' }).click();
  await expect(page.locator('.zb-row-selected')).toContainText('TP8');
  await beside.getByText('Drawing').click();
  await expect(page.locator('.zb-tap-on')).toHaveAttribute('aria-label', 'Point 8, Filtered supply');
  await traced.getByText('Parts').click();
  await expect(page.locator('.zb-net-on').first()).toHaveText(/vf/);
});
