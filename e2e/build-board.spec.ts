import { expect, goTo, newUnit, saved, test, typeParts } from './support/bench.ts';
import { printed } from './support/printed.ts';

const PREAMP = [
  'V1 9V vcc 0',
  'C1 1u in b',
  'R1 100k vcc b',
  'R2 22k b 0',
  'R3 4k7 vcc c',
  'R4 1k e 0',
  'C2 100u 16V e 0',
  'Q1 2N3904 c b e',
  'C3 10u c out',
  'R5 100k out 0',
  'R6 100 p vcc',
  'C4 100u 25V p 0',
  'C5 100n vcc 0',
];

test('a preamplifier of twelve parts is laid out by proposal, changed by hand with a short made and mended, and printed at its own size', async ({
  page,
}) => {
  test.setTimeout(180_000);
  await newUnit(page, 'Small preamp');
  await typeParts(page, PREAMP);
  await goTo(page, 'Build');
  await page.getByRole('region', { name: 'Steps' }).getByText('Board', { exact: true }).click();
  const sheet = page.getByRole('region', { name: 'Board sheet' });
  await sheet.getByRole('button', { name: 'Propose a board' }).click();
  await expect(sheet.getByText(/It is the circuit as planned/)).toBeVisible({ timeout: 60_000 });
  await saved(page);

  // A link by hand from the supply to ground is a short, told with its place; the same link again takes it out.
  const panel = page.getByRole('region', { name: 'Board', exact: true });
  await panel.getByText('Terminal', { exact: true }).click();
  await expect(panel.getByText(/Tap a hole where a wire of it leaves/)).toBeVisible();
  await panel.getByText('Move', { exact: true }).click();
  const part = panel.getByRole('button', { name: /^R1, / });
  const place = (await part.getAttribute('aria-label'))!;
  await part.focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowDown');
  await expect(sheet.getByText(/It is the circuit as planned/)).toBeHidden();
  await expect(sheet.getByText(/thing.? wrong/)).toBeVisible();
  await expect(
    sheet
      .getByText(
        /on one piece of copper|in one hole|pieces of copper|in one another|there is no copper|outside the board/,
      )
      .first(),
  ).toBeVisible();
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('ArrowLeft');
  await expect(panel.getByRole('button', { name: place })).toBeVisible();
  await expect(sheet.getByText(/It is the circuit as planned/)).toBeVisible();
  await saved(page);

  // Cuts are ticked as they are made, and the tick is kept.
  const first = sheet.getByRole('checkbox').first();
  await first.check();
  await saved(page);
  await page.reload();
  await expect(sheet.getByRole('checkbox').first()).toBeChecked();

  // On paper, whichever it is: its ruler is 50 mm long.
  const href = await sheet.getByRole('link', { name: 'Print 1:1' }).getAttribute('href');
  await page.goto(href!);
  await expect(page.getByRole('img', { name: 'A ruler of 50 mm' })).toBeVisible();
  for (const format of ['A4', 'Letter'] as const) {
    const [first] = await printed(page, format);
    expect(first!.rulersMm.map((mm) => Math.round(mm * 10) / 10)).toEqual([50]);
  }
});
