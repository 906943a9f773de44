import { randomUUID } from 'node:crypto';
import { expect, newUnit, saved, test, typeParts } from './support/bench.ts';

test('twenty pages of one browser are open at once, and all show what one of them enters', async ({
  page,
  context,
}) => {
  test.setTimeout(180_000);
  await newUnit(page, `Twenty ${randomUUID().slice(0, 4)}`);
  await typeParts(page, ['R1 10k a 0']);
  const pages = [page];
  for (let i = 1; i < 20; i += 1) {
    const next = await context.newPage();
    await next.goto(page.url());
    await expect(next.getByRole('button', { name: 'Change R1' })).toBeVisible();
    pages.push(next);
  }
  // The one that had the stream goes: another takes over.
  await pages.shift()!.close();
  const last = pages.at(-1)!;
  await last.getByLabel('Type a part').fill('R2 22k a 0');
  await last.getByLabel('Type a part').press('Enter');
  await saved(last);
  for (const each of pages) await expect(each.getByRole('button', { name: 'Change R2' })).toBeVisible();
});
