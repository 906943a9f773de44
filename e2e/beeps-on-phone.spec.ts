import type { Browser, Page } from '@playwright/test';
import { expect, newUnit, saved, test } from './support/bench.ts';

test.use({ viewport: { width: 390, height: 844 }, hasTouch: true });

/** The small board on the table: where its pads are seen from the parts' side, and what really is one net. */
const PADS: Readonly<Record<string, { readonly at: readonly [x: number, y: number]; readonly net: string }>> =
  {
    'J1.tip': { at: [0.1, 0.3], net: 'in' },
    'J1.sleeve': { at: [0.1, 0.7], net: 'ground' },
    'C1.a': { at: [0.4, 0.3], net: 'in' },
    'C1.b': { at: [0.6, 0.3], net: 'base' },
    'R1.a': { at: [0.9, 0.3], net: 'base' },
    'R1.b': { at: [0.9, 0.7], net: 'ground' },
  };
const netOf = (end: string) => PADS[end]?.net ?? end;

/** A picture of a side of the board, drawn here; the solder side is turned over left to right. */
async function picture(browser: Browser, isSolderSide: boolean): Promise<Buffer> {
  const page = await browser.newPage({ viewport: { width: 600, height: 400 } });
  const dots = Object.values(PADS)
    .map(
      ({ at: [x, y] }) =>
        `<circle cx="${600 * (isSolderSide ? 1 - x : x)}" cy="${400 * y}" r="14" fill="#c8a75c"/>`,
    )
    .join('');
  await page.setContent(
    `<body style="margin:0;background:${isSolderSide ? '#8a6a35' : '#2f6b4e'}"><svg width="600" height="400">${dots}</svg></body>`,
  );
  const png = await page.screenshot();
  await page.close();
  return png;
}

const shown = (page: Page, name: string) => page.getByRole('img', { name: `Photo: ${name}` });

async function addPhoto(page: Page, name: string, buffer: Buffer): Promise<void> {
  const photos = page.getByRole('region', { name: 'Photos' });
  await photos
    .locator('input[type=file]')
    .setInputFiles({ name: `${name}.png`, mimeType: 'image/png', buffer });
}

/** Taps a place on a photo, in fractions of it. */
async function tap(page: Page, name: string, [x, y]: readonly [number, number]): Promise<void> {
  const photo = shown(page, name);
  await photo.scrollIntoViewIfNeeded();
  const box = (await photo.boundingBox())!;
  await page.touchscreen.tap(box.x + x * box.width, box.y + y * box.height);
}

test('a small board is traced from two photos by beeping, with one hand on a phone', async ({
  page,
  browser,
}) => {
  test.setTimeout(120_000);
  await newUnit(page, 'Wagtail board');
  await page.getByText('Beeps', { exact: true }).tap();
  const field = page.getByLabel('Type a part or what beeps');
  for (const line of ['J1 jack', 'C1 100n', 'R1 1M']) {
    await field.fill(line);
    await field.press('Enter');
    await expect(field).toHaveValue('');
  }
  await page.getByText('Photos', { exact: true }).tap();
  await addPhoto(page, 'Top', await picture(browser, false));
  await expect(shown(page, 'Top')).toBeVisible();
  await addPhoto(page, 'Bottom', await picture(browser, true));
  await saved(page);

  // Two taps a part: the next one is asked for by itself.
  await page
    .getByRole('button', { name: /^Mark pads of/ })
    .first()
    .tap();
  const note = page.getByRole('status').filter({ hasText: 'Tap' });
  for (let asked = ''; Object.keys(PADS).some((pad) => asked !== pad);) {
    if ((await note.count()) === 0) break;
    const words = await note.innerText();
    const [, ref, pin] = /the pad of (\S+) (\S+?)\./.exec(words)!;
    asked = `${ref}.${pin}`;
    await tap(page, 'Top', PADS[asked]!.at);
    await expect(note.filter({ hasText: `${ref} ${pin}.` })).toHaveCount(0);
  }
  await expect(page.getByRole('button', { name: /^Pad / })).toHaveCount(6);

  // Both sides are lined up by two places that both show.
  await page.getByText('Bottom', { exact: true }).tap();
  await expect(shown(page, 'Bottom')).toBeVisible();
  await page.getByLabel('Side that is seen').click();
  await page.getByTitle('Solder side', { exact: true }).click();
  await page.getByLabel('Line up with another photo').click();
  await page.locator('.ant-select-item-option-content', { hasText: 'Top' }).click();
  await tap(page, 'Bottom', [0.9, 0.3]);
  await tap(page, 'Bottom', [0.1, 0.7]);
  await tap(page, 'Top', [0.1, 0.3]);
  await tap(page, 'Top', [0.9, 0.7]);
  await expect(shown(page, 'Bottom')).toBeVisible();
  const sleeve = page.getByRole('button', { name: 'Pad J1.sleeve' });
  await expect(sleeve).toBeVisible();
  const [box, on] = [(await sleeve.boundingBox())!, (await shown(page, 'Bottom').boundingBox())!];
  expect((box.x + box.width / 2 - on.x) / on.width).toBeCloseTo(0.9, 1);

  // Each beep that is proposed is answered as the board would, until all is proven.
  const question = page.getByRole('group', { name: 'The next beep' });
  for (let answers = 0; answers < 60 && (await question.count()) > 0; answers += 1) {
    const words = await question.innerText();
    const hold = endIn(/Hold one lead on (.+?)\.\s/.exec(words)![1]!);
    const buttons = question.locator('button[class*=end]');
    const ends = (await buttons.allInnerTexts()).map((text) => endIn(text.split('\n')[0]!.trim()));
    const beeping = ends.findIndex((end) => netOf(end) === netOf(hold));
    const all = question.getByRole('button', { name: /^(All beep|It beeps) Enter$/ });
    if ((await all.count()) > 0) await all.tap();
    else if (beeping >= 0) await buttons.nth(beeping).tap();
    else await question.getByRole('button', { name: /^(No beep|None beeps)/ }).tap();
    await expect
      .poll(async () => ((await question.count()) === 0 ? '' : question.innerText()))
      .not.toBe(words);
  }
  await expect(page.getByText('Every net is settled and proven.')).toBeVisible();
  await saved(page);
  const id = page.url().split('/units/')[1]!.split('/')[0]!;
  const unit = (await (await page.request.get(`/api/v1/units/${id}`)).json()) as {
    parts: { part: { ref: string; pins: Record<string, string> } }[];
  };
  const nets = Object.fromEntries(unit.parts.map(({ part }) => [part.ref, part.pins]));
  expect(nets.C1!.a).toBe(nets.J1!.tip);
  expect(nets.C1!.b).toBe(nets.R1!.a);
  expect([nets.J1!.sleeve, nets.R1!.b]).toEqual(['0', '0']);

  // Choosing a pad on the photo chooses its net everywhere.
  await page.getByRole('button', { name: 'Pad R1.a' }).tap();
  await expect(page.getByRole('row', { name: /C1\.b, R1\.a/ })).toHaveClass(/zb-row-selected/);
});

/** "C1, its end a" and "C1.a" are the pin C1.a. */
function endIn(words: string): string {
  const [, ref, pin] = /^(\w+), its (?:end|pin) (\w+)$/.exec(words) ?? [];
  return ref === undefined ? words : `${ref}.${pin}`;
}
