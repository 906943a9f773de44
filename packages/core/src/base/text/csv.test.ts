import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readCsv, writeCsv } from './csv.ts';

describe('a table as text', () => {
  it('comes back cell by cell, with apostrophes and marks of formulas before it', () => {
    const sign = fc.constantFrom("'", '=', '+', '-', '@', ',', ';', '"', '\n', 'a', '1', ' ');
    const cell = fc
      .oneof(fc.string({ unit: sign, maxLength: 6 }), fc.string({ maxLength: 8 }))
      .map((s) => s.trim());
    fc.assert(
      fc.property(fc.array(fc.tuple(cell, cell), { minLength: 1, maxLength: 5 }), (rows) => {
        const back = readCsv(writeCsv(['one', 'two'], rows));
        expect(back).toEqual([['one', 'two'], ...rows]);
      }),
      { numRuns: 2000 },
    );
  });

  it('begins no cell with what a spreadsheet computes', () => {
    const cells = writeCsv(['a'], [['=1'], ["'=1"], ['+1'], ['-1'], ['@a']])
      .split('\n')
      .slice(1);
    expect(cells).toEqual([`"'=1"`, `"''=1"`, `"'+1"`, `"'-1"`, `"'@a"`]);
  });
});
