import type { UnitResource } from '@zemble/contract';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { circuitOf } from '../../testing/circuits.ts';
import { readReadingsCsv, writeReadingsCsv } from './readings-csv.ts';

const unit = {
  parts: circuitOf('R1 10k a 0\nR2 47k a b\nC1 22u polarised b 0\nQ1 2N3904 b a 0').parts.map((part, i) => ({
    id: `id${i}`,
    version: 0,
    position: i,
    part,
  })),
  readings: [],
  changes: [],
} as Partial<UnitResource> as UnitResource;
const read = (text: string) => {
  const { rows, problems } = readReadingsCsv(text, unit);
  return {
    rows: rows.map(({ line: _l, place, ...r }) => ({ ref: place.part.ref, ...r })),
    problems: problems.map((p) => p.message),
  };
};

describe('a table of readings', () => {
  it('is read with or without a head, with any usual separator, in any notation', () => {
    const expected = [
      { ref: 'R1', value: 10_200, condition: 'leg lifted' },
      { ref: 'C1', value: 3.1e-6, condition: 'in circuit', instrument: 'meter 2' },
    ];
    expect(
      read('part,value,unit,condition,instrument\nR1,10.2k,,,\nC1,3.1u,F,in circuit,meter 2\n').rows,
    ).toEqual(expected);
    expect(read('R1;10,2k;;;\nC1;3,1u;;in circuit;meter 2').rows).toEqual(expected);
    expect(read('\uFEFFref\tvalue\r\nR1\t10200\r\n').rows).toEqual([expected[0]]);
    expect(read('R2,OL\nR1,0').rows).toEqual([
      { ref: 'R2', value: 'open', condition: 'leg lifted' },
      { ref: 'R1', value: 'short', condition: 'leg lifted' },
    ]);
  });

  it('names the line of what it cannot read, and keeps the rest', () => {
    const { rows, problems } = read('part,value\nR1,10k\nX9,1k\nR2,blue\nQ1,300');
    expect(rows).toHaveLength(1);
    expect(problems.map((p) => p.replace(/^[^:]*: /, ''))).toEqual([
      'there is no part "X9".',
      '"blue" is not a reading of R2.',
      '"300" is not a reading of Q1.',
    ]);
    expect(problems[0]).toContain('line 3');
  });

  it('takes no mark before three digits for what it may not be', () => {
    // A full stop sets thousands apart where the comma is the decimal mark, as in tables separated by semicolons.
    expect(read('R1;1.000').rows).toEqual([]);
    expect(read('R1;1.000').problems[0]).toContain('"1.000" may be 1 or 1000');
    expect(read('R1,"1,000"').problems[0]).toContain('may be 1 or 1000');
    expect(read('R1,1.000').rows).toMatchObject([{ value: 1 }]);
    expect(read('R1;1,000').rows).toMatchObject([{ value: 1 }]);
    expect(read('R1;1.000k').rows).toMatchObject([{ value: 1000 }]);
  });

  it('reads back what it writes', () => {
    const reading = fc.record({
      partId: fc.constantFrom('id0', 'id1', 'id2'),
      value: fc.oneof(
        fc.constantFrom('open' as const, 'short' as const),
        fc.double({ min: 1e-9, max: 1e7, noNaN: true }),
      ),
      condition: fc.constantFrom('in circuit' as const, 'leg lifted' as const),
      instrument: fc.option(
        fc
          .string({ minLength: 1, maxLength: 12 })
          .filter((s) => /^[a-z ",;0-9=+@-]*$/i.test(s) && s.trim() === s && s !== ''),
      ),
    });
    fc.assert(
      fc.property(fc.array(reading, { minLength: 1, maxLength: 8 }), (list) => {
        const readings = list.map((r, i) => ({
          ...r,
          id: `r${i}`,
          readoutId: null,
          changeId: null,
          ref: null,
          esr: i % 2 === 0 ? null : 1.5,
          aspect: null,
          red: null,
          isAsDrawn: false,
          between: null,
          takenAt: '2026-01-01T00:00:00.000Z',
          withdrawn: false,
        }));
        const { rows, problems } = readReadingsCsv(writeReadingsCsv({ ...unit, readings }), unit);
        expect(problems).toEqual([]);
        expect(rows).toHaveLength(list.length);
        rows.forEach((row, i) => {
          const { value, condition } = list[i]!;
          expect(row.condition).toBe(condition);
          expect(row.esr).toBe(i % 2 === 0 ? undefined : 1.5);
          if (typeof value === 'number') expect((row.value as number) / value).toBeCloseTo(1, 9);
          else expect(row.value).toBe(value);
        });
      }),
    );
  });

  it('carries what was read beside the value', () => {
    const text = 'part,value,aspect\nQ1,0.65,b-e\nQ1,210,hfe\nR2,3,gain';
    const { rows, problems } = readReadingsCsv(text, unit);
    expect(rows.map(({ place, value, aspect }) => [place.part.ref, value, aspect])).toEqual([
      ['Q1', 0.65, 'b-e'],
      ['Q1', 210, 'gain'],
    ]);
    expect(problems[0]!.message).toContain('nothing called "gain" is read of R2');
  });

  it('keeps apart what was in at the time: as it came, fitted by a change, added by one', () => {
    const change = (
      id: string,
      name: string,
      step: UnitResource['changes'][number]['change']['steps'][number],
    ): UnitResource['changes'][number] => ({
      id,
      version: 0,
      position: 0,
      change: { id, name, purpose: 'repair' as const, state: 'done' as const, steps: [step] },
    });
    const reading = (
      id: string,
      of: Partial<UnitResource['readings'][number]>,
      value: number,
    ): UnitResource['readings'][number] => ({
      id,
      partId: null,
      changeId: null,
      ref: null,
      readoutId: null,
      value,
      condition: 'leg lifted',
      instrument: null,
      esr: null,
      aspect: null,
      red: null,
      isAsDrawn: false,
      between: null,
      takenAt: '2026-01-01T00:00:00.000Z',
      withdrawn: false,
      ...of,
    });
    const changed: UnitResource = {
      ...unit,
      changes: [
        change('c1', 'New R1', { do: 'fit', ref: 'R1', value: 12_000 }),
        change('c2', 'Slow switch', {
          do: 'add',
          part: { ref: 'C30', kind: 'capacitor', pins: { a: 'a', b: 'b' }, marked: 470e-9 },
        }),
        change('c3', 'Out', { do: 'remove', ref: 'R2' }),
      ],
      readings: [
        reading('1', { partId: 'id0' }, 15_000),
        reading('2', { partId: 'id0', changeId: 'c1' }, 12_100),
        reading('3', { changeId: 'c2', ref: 'C30' }, 510e-9),
      ],
    };
    const text = writeReadingsCsv(changed);
    expect(text.split('\n').filter((l) => l !== '')).toHaveLength(4);
    const { rows, problems } = readReadingsCsv(text, changed);
    expect(problems).toEqual([]);
    expect(rows.map(({ place, value }) => [place.part.ref, place.of, value])).toEqual([
      ['R1', { partId: 'id0' }, 15_000],
      ['R1', { partId: 'id0', changeId: 'c1' }, 12_100],
      ['C30', { changeId: 'c2', ref: 'C30' }, 510e-9],
    ]);
    // Typed by hand it is of what is in now; of what is out, or was put in by nothing, it is none.
    expect(readReadingsCsv('R1,12k', changed).rows[0]!.place.of).toEqual({ partId: 'id0', changeId: 'c1' });
    expect(readReadingsCsv('R2,47k', changed).problems[0]!.message).toContain('no part "R2"');
    expect(readReadingsCsv('part,value,change\nR1,1k,Other', changed).problems[0]!.message).toContain(
      'no part "R1" that "Other" put in',
    );
  });

  it('never throws, whatever is pasted', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 300 }), (text) => {
        const { rows, problems } = readReadingsCsv(text, unit);
        expect(rows.length + problems.length).toBeGreaterThanOrEqual(0);
      }),
      { numRuns: 300 },
    );
  });
});
