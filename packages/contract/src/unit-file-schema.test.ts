import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { unitFileJsonSchema } from './unit-file-schema.ts';
import { withTables } from './unit-file-tables.ts';

describe('docs/unit-file.schema.json', () => {
  it('is what the contract says; write it anew with "npm run schema"', () => {
    const written: unknown = JSON.parse(
      readFileSync(new URL('../../../docs/unit-file.schema.json', import.meta.url), 'utf8'),
    );
    expect(written).toEqual(JSON.parse(JSON.stringify(unitFileJsonSchema())));
  });
});

describe('docs/unit-file.md', () => {
  it('has the kinds and readouts of the contract; write it anew with "npm run schema"', () => {
    const written = readFileSync(new URL('../../../docs/unit-file.md', import.meta.url), 'utf8');
    // The formatter pads the tables' cells.
    const plain = (text: string) =>
      text
        .replace(/ +/g, ' ')
        .replace(/-{3,}/g, '---')
        .replace(/\n{2,}/g, '\n');
    expect(plain(written)).toBe(plain(withTables(written)));
  });
});
