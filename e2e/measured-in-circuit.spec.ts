import { expect, newUnit, readingField, saved, test, typeParts } from './support/bench.ts';

const LINES = [
  'V1 9V vcc 0',
  'R1 4k7 vcc c1',
  'R2 1k e1 0',
  'R3 220k c1 b2',
  'R4 2k2 e2 0',
  'R5 100k out 0',
  'R6 10k e2 fb',
  'R7 22k fb 0',
  'R8 1M in 0',
  'R9 330k b2 0',
  'C1 100n in b1',
  'C2 47u polarised e1 0',
  'C3 10u polarised e2 out',
  'C4 220u polarised vcc 0',
  'C5 100n vcc 0',
  'C6 22n c1 fb',
];
/**
 * What a meter shows across each where it stands, its neighbours beside it: R2 is 1.32 k and C3 3.1 uF, all others are
 * sound. R6 reads R6 with R4 and R7 in series beside it; C5 reads itself and C4.
 */
const READINGS: Readonly<Record<string, string>> = {
  R1: '4.68k',
  R2: '1.32k',
  R3: '219k',
  R4: '2.06k',
  R5: '98.6k',
  R6: '7.1k',
  R7: '7.87k',
  R8: '1M',
  R9: '331k',
  C1: '96n',
  C2: '46.7u',
  C3: '3.1u',
  C4: '234u',
  C5: '234u',
  C6: '22.4n',
};
const BAD = ['R2', 'C3'];

test('fifteen parts measured in circuit by the keyboard: two are bad, and none of the others is accused', async ({
  page,
}) => {
  await newUnit(page, 'Measured where it stands');
  await typeParts(page, LINES);
  await page.keyboard.press('Alt+4');
  const field = readingField(page);
  await expect(page.getByRole('radio', { name: 'in circuit' })).toBeChecked();
  // What the meter should show stands there before the part is touched.
  await expect(field).toHaveAccessibleName('Reading of R1');
  await expect(page.getByText(/should read about 4\.\d+ kΩ/)).toBeVisible();
  const read = new Set<string>();
  while (read.size < Object.keys(READINGS).length) {
    const ref = (await field.getAttribute('aria-label'))!.replace('Reading of ', '');
    read.add(ref);
    await page.keyboard.type(READINGS[ref]!);
    await page.keyboard.press('Enter');
    await expect(field).not.toHaveAccessibleName(`Reading of ${ref}`);
  }
  await saved(page);
  const table = page.getByRole('region', { name: 'Readings' });
  for (const ref of Object.keys(READINGS)) {
    const row = table.getByRole('row', { name: new RegExp(`^Measure ${ref} |^${ref} `) });
    if (BAD.includes(ref)) await expect(row).toContainText(/out/);
    else await expect(row).toContainText(/in$|edge|lift a leg/);
  }
  await expect(page.getByText(/15 of 15 parts · 2 out/)).toBeVisible();
  await page.getByRole('button', { name: 'Measure C5' }).click();
  await expect(table.getByRole('row', { name: /C5/ })).not.toContainText('%');
});
