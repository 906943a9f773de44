import { expect, goTo, saved, test } from './support/bench.ts';

test('one field takes readings, voltages and what is heard; each is judged against the circuit', async ({
  page,
}) => {
  await page.goto('/');
  await page
    .getByRole('link', { name: /Lark 3/ })
    .first()
    .click();
  await goTo(page, 'Measure');
  const field = page.getByRole('textbox', { name: /^Reading of/ });
  const status = page.getByRole('region', { name: 'Readings' }).getByRole('status');
  const enter = async (line: string) => {
    await field.fill(line);
    await field.press('Enter');
    await expect(field).toHaveValue('');
  };
  // In circuit: what the neighbours add is taken off.
  await enter('C106 4.05n in circuit');
  await expect(status.first()).toContainText('the part itself is between');
  await enter('C106 9n in circuit');
  await expect(status.first()).toContainText('convicted in circuit');
  // An ESR is judged by capacity and voltage.
  await enter('C103 9.6u esr 40');
  await expect(status.last()).toContainText('typical');
  // Completion by Tab, and a voltage at a pin.
  await field.fill('R10');
  await expect(page.getByText('R101 R102 R103')).toBeVisible();
  await field.fill('Q102c 14V');
  await expect(page.getByText('14 V at c2L')).toBeVisible();
  await field.press('Enter');
  await page.getByText('Voltages', { exact: true }).click();
  await expect(page.getByRole('row', { name: /^Measure net c2L/ })).toContainText('14 V');
  // What cannot be read is said, and stays in the field.
  await field.fill('X77 4k7');
  await field.press('Enter');
  await expect(page.getByRole('alert')).toContainText('X77');
  await expect(field).toHaveValue('X77 4k7');
  await field.press('Escape');
  await saved(page);
});

test('drifts are ordered by what they do, and the fewest parts to replace are planned', async ({ page }) => {
  await page.goto('/');
  await page
    .getByRole('link', { name: /Lark 3/ })
    .first()
    .click();
  await goTo(page, 'Measure');
  await page.getByText('Does it matter', { exact: true }).click();
  const matter = page.getByLabel('Drifts, scroll');
  await expect(matter.getByRole('status')).toContainText('Replace R104, R109');
  await expect(matter.getByRole('row').nth(1)).toContainText('R104');
  await expect(matter.getByRole('row').nth(1)).toContainText('replace');
  await matter.getByRole('button', { name: 'Plan it' }).click();
  await saved(page);
  await goTo(page, 'Rework');
  await expect(page.getByRole('spinbutton', { name: 'Value of R104' })).toHaveAttribute(
    'aria-valuetext',
    /680 Ω/,
  );
  await page.keyboard.press('Control+Z');
  await saved(page);
});

test('readings come in from a table and go out as one; a correction keeps the old reading', async ({
  page,
}) => {
  await page.goto('/');
  await page
    .getByRole('link', { name: /Drover/ })
    .first()
    .click();
  await goTo(page, 'Measure');
  await page.getByRole('button', { name: 'More' }).click();
  await page.getByRole('menuitem', { name: 'Take in a table' }).click();
  const table = page.getByLabel('Table of readings');
  await table.fill('part,value,condition,instrument\nR1,480k,,meter 2\nX9,1k\nR1,475k,,meter 2');
  await expect(page.getByRole('dialog')).toContainText('2 readings can be taken in');
  await expect(page.getByRole('dialog')).toContainText('there is no part "X9"');
  await page.getByRole('button', { name: 'Take in 2 readings' }).click();
  await saved(page);
  await page.getByRole('button', { name: 'More' }).click();
  const file = await page.request.get(
    (await page.getByRole('link', { name: 'Give out as a table' }).getAttribute('href'))!,
  );
  const lines = (await file.text()).trim().split('\n');
  expect(lines[0]).toBe('part,value,unit,condition,instrument,taken_at,withdrawn,esr,aspect');
  expect(lines.filter((l) => l.startsWith('R1,')).map((l) => l.split(',').slice(1, 5).join(' '))).toEqual(
    expect.arrayContaining(['480000 ohm leg lifted meter 2', '475000 ohm leg lifted meter 2']),
  );
});

test('two pages on one unit see each other’s readings at once, and neither loses one', async ({
  browser,
  bench,
}) => {
  const open = async () => {
    const context = await browser.newContext({ baseURL: bench.url, viewport: { width: 1280, height: 800 } });
    const page = await context.newPage();
    await page.goto('/');
    await page.getByRole('link', { name: /Heron/ }).first().click();
    await goTo(page, 'Measure');
    await expect(page.getByRole('textbox', { name: /^Reading of/ })).toBeVisible();
    return page;
  };
  const [left, right] = [await open(), await open()];
  const enter = async (page: typeof left, line: string) => {
    const field = page.getByRole('textbox', { name: /^Reading of/ });
    await field.fill(line);
    await field.press('Enter');
  };
  const row = (page: typeof left, ref: string) =>
    page.getByRole('row').filter({ has: page.getByRole('button', { name: `Measure ${ref}`, exact: true }) });
  await enter(left, 'R11 22.1k');
  await expect(row(right, 'R11')).toContainText('22.1 kΩ', { timeout: 1500 });
  await Promise.all([enter(left, 'R12 21.9k'), enter(right, 'R13 99k')]);
  for (const page of [left, right]) {
    await expect(row(page, 'R12')).toContainText('21.9 kΩ');
    await expect(row(page, 'R13')).toContainText('99 kΩ');
  }
  await left.context().close();
  await right.context().close();
});
