import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { unitFileJsonSchema } from './unit-file-schema.ts';

describe('docs/unit-file.schema.json', () => {
  it('is what the contract says; write it anew with "npm run schema"', () => {
    const written: unknown = JSON.parse(
      readFileSync(new URL('../../../docs/unit-file.schema.json', import.meta.url), 'utf8'),
    );
    expect(written).toEqual(JSON.parse(JSON.stringify(unitFileJsonSchema())));
  });
});
