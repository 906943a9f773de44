import { expect, goTo, newUnit, saved, test, typeParts } from './support/bench.ts';
import { printed } from './support/printed.ts';

test('a panel that is larger than paper is printed at its own size, in sheets that are joined at marks', async ({
  page,
}) => {
  await newUnit(page, 'Wide mixer');
  await typeParts(page, ['V1 9V vcc 0', 'P1 10k log vcc w 0', 'P2 10k log vcc x 0']);
  await goTo(page, 'Build');
  await page.getByText('Fit', { exact: true }).click();
  await page.getByRole('button', { name: 'A panel or lid' }).click();
  await page.getByLabel('Width, mm').fill('240');
  await page.getByLabel('Width, mm').press('Enter');
  const line = page.getByLabel('A control, or something tall under the panel');
  for (const text of ['P1 20 50', 'P2 220 50']) {
    await line.fill(text);
    await line.press('Enter');
    await expect(line).toHaveValue('');
  }
  await saved(page);
  const href = await page.getByRole('link', { name: 'Template 1:1' }).getAttribute('href');
  await page.goto(href!);
  await expect(page.getByRole('region', { name: 'Sheet A2' })).toBeVisible();
  for (const format of ['A4', 'Letter'] as const) {
    const sheets = (await printed(page, format)).filter((s) => s.rulersMm.length > 0);
    for (const { rulersMm } of sheets) for (const mm of rulersMm) expect(mm).toBeCloseTo(50, 1);
    const tiles = sheets.filter((s) => s.texts.some((t) => t.text === 'P'));
    expect(tiles).toHaveLength(2);
    // From the cross at the join to either hole it is 100 mm on paper: the joined sheets are 200 mm between the holes.
    const between = tiles.map(({ texts }) => {
      const cross = texts.find((t) => t.text === 'b')!;
      const hole = texts.find((t) => t.text === 'P')!;
      return hole.xMm - cross.xMm;
    });
    expect(between[1]! - between[0]!).toBeCloseTo(200, 1);
  }
});
