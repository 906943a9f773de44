import { expect, test } from './support/bench.ts';

const PNG = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 0, 0, 0, 13]);

const FILES: readonly { name: string; buffer: Buffer; sentence: RegExp }[] = [
  {
    name: 'cut.zemble.json',
    buffer: Buffer.from('{"format":"zemble/unit","version":1,"cir'),
    sentence: /ends in the middle/,
  },
  {
    name: 'later.zemble.json',
    buffer: Buffer.from('{"format":"zemble/unit","version":9}'),
    sentence: /version 9/,
  },
  { name: 'renamed.zemble.json', buffer: PNG, sentence: /picture/ },
  {
    name: 'wrong-value.zemble.json',
    buffer: Buffer.from(
      '{"format":"zemble/unit","version":1,"circuit":{"ground":"0","parts":[{"ref":"R7","kind":"resistor","pins":{"a":"x","b":"0"},"marked":"4x7"}]}}',
    ),
    sentence: /R7.*4x7/,
  },
  { name: 'huge.zemble.json', buffer: Buffer.alloc(50_000_000, 32), sentence: /50 MB/ },
];

test('every wrong file gets a sentence that says what is wrong, and nothing is lost', async ({ page }) => {
  await page.goto('/');
  await expect(page.getByRole('link', { name: /Lark 3/ }).first()).toBeVisible();
  const rows = await page.getByRole('row').count();
  for (const { name, buffer, sentence } of FILES) {
    await page.getByLabel('Open a unit file').setInputFiles({ name, mimeType: 'application/json', buffer });
    await expect(page.getByRole('alert').filter({ hasText: name })).toContainText(sentence);
  }
  expect(await page.getByRole('row').count()).toBe(rows);
});
