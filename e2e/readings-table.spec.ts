import { expect, openUnit, saved, test } from './support/bench.ts';

test('readings come in from a table and go out as one; a correction keeps the old reading', async ({
  page,
}) => {
  await openUnit(page, /Drover/, 'Measure');
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
  expect(lines[0]).toBe(
    'part,value,unit,condition,instrument,taken_at,withdrawn,esr,aspect,red,as_drawn,low,high,change',
  );
  expect(lines.filter((l) => l.startsWith('R1,')).map((l) => l.split(',').slice(1, 5).join(' '))).toEqual(
    expect.arrayContaining(['480000 ohm leg lifted meter 2', '475000 ohm leg lifted meter 2']),
  );
});
