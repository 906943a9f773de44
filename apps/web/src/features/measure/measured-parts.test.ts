import type { ReadingResource, UnitResource } from '@zemble/contract';
import { formatSheetLine, judgeReading, readPart, parseSheetLine, type Verdict } from '@zemble/core';
import { describe, expect, it } from 'vitest';
import { byHarm, measuredParts, nextToMeasure, ordered, repeated, verdictKey } from './measured-parts.ts';
import { partialUnit } from '../../testing/partial-unit.ts';

const LINES = [
  'V1 9V vcc 0',
  'R1 10k 10% vcc a',
  'R2 47k 10% a 0',
  'C1 22u polarised a b',
  'Q1 2N3904 vcc a b',
  'R3 1k b 0',
];

function unitWith(
  readings: readonly (readonly [ref: string, value: number | 'open', condition?: 'in circuit'])[],
): UnitResource {
  const parts = LINES.map((line, position) => {
    const read = parseSheetLine(line);
    if (!read.ok) throw new Error(line);
    return { id: `id-${read.part.ref}`, version: 0, position, part: read.part };
  });
  const made = readings.map(([ref, value, condition], i): ReadingResource => ({
    id: `r${i}`,
    partId: `id-${ref}`,
    readoutId: null,
    changeId: null,
    ref: null,
    value,
    condition: condition ?? 'leg lifted',
    instrument: null,
    esr: null,
    aspect: null,
    red: null,
    isAsDrawn: false,
    between: null,
    takenAt: new Date(i * 1000).toISOString(),
    withdrawn: false,
  }));
  return partialUnit({ parts, readings: made });
}

const refs = (list: readonly { part: { ref: string } }[]) => list.map((p) => p.part.ref);
const part = (ref: string) => {
  const line = LINES.find((l) => l.startsWith(`${ref} `))!;
  const read = parseSheetLine(line);
  if (!read.ok) throw new Error(line);
  return readPart(read.part as never, ref, []);
};

describe('a measuring run', () => {
  it('goes through what a meter can read, in the order of the sheet', () => {
    const parts = measuredParts(unitWith([]));
    expect(refs(parts.filter((p) => p.isInRun))).toEqual(['R1', 'R2', 'C1', 'R3']);
    expect(refs(parts)).toEqual(['R1', 'R2', 'C1', 'Q1', 'R3']);
  });

  it('shows no verdict of an earlier reading at a later one, or as it was before something was told of it', () => {
    const judged = (readings: Parameters<typeof unitWith>[0], told = {}) => {
      const unit = unitWith(readings);
      const first: Verdict = {
        ...judgeReading(part('R1'), { value: 9e3, condition: 'leg lifted' }),
        sentence: 'of the first',
      };
      const map = new Map([[verdictKey(unit.readings[0]!), first]]);
      const last = unit.readings.at(-1)!;
      const amended = { ...unit, readings: [...unit.readings.slice(0, -1), { ...last, ...told }] };
      return measuredParts(amended, map).find((p) => p.part.ref === 'R1')!.verdict;
    };
    expect(judged([['R1', 9e3, 'in circuit']])).toMatchObject({ sentence: 'of the first' });
    const again = judged([
      ['R1', 9e3, 'in circuit'],
      ['R1', 7e3, 'in circuit'],
    ]);
    expect(again).not.toMatchObject({ sentence: 'of the first' });
    expect(judged([['R1', 9e3, 'in circuit']], { red: 'a' })).not.toMatchObject({ sentence: 'of the first' });
  });

  it('puts the worst on top and leaves the unmeasured in their order below', () => {
    const parts = measuredParts(
      unitWith([
        ['R1', 10_100],
        ['R3', 1800],
        ['C1', 'open'],
      ]),
    );
    expect(refs(byHarm(parts))).toEqual(['C1', 'R3', 'R1', 'R2', 'Q1']);
  });

  it('shows the latest reading and keeps count of all', () => {
    const r1 = measuredParts(
      unitWith([
        ['R1', 15_000],
        ['R1', 10_050],
      ]),
    ).find((p) => p.part.ref === 'R1')!;
    expect(r1.reading!.value).toBe(10_050);
    expect(r1.readingCount).toBe(2);
    expect(r1.verdict!.kind).toBe('in');
  });

  it('goes on with the next unmeasured part, round to the start, past the skipped', () => {
    const parts = measuredParts(unitWith([['R2', 47_000]]));
    const next = (ref: string | null, ...skipped: string[]) =>
      nextToMeasure(parts, ref, new Set(skipped))?.part.ref;
    expect(next(null)).toBe('R1');
    expect(next('R1')).toBe('C1');
    expect(next('R3')).toBe('R1');
    expect(next('R1', 'C1')).toBe('R3');
    expect(next('R1', 'R1', 'C1', 'R3')).toBeUndefined();
  });
});

describe('repeated readings', () => {
  it('have a mean and a spread under one condition, and none for a single one', () => {
    const of = (values: readonly number[]) => unitWith(values.map((v) => ['R1', v] as const)).readings;
    expect(repeated(of([9_900, 10_000, 10_100]))).toEqual({ count: 3, mean: 10_000, spread: 100 });
    expect(repeated(of([9_900]))).toBeNull();
    const mixed = unitWith([
      ['R1', 8_000, 'in circuit'],
      ['R1', 9_900],
      ['R1', 10_100],
    ]).readings;
    expect(repeated(mixed)!.count).toBe(2);
  });
});

describe('an order of the run', () => {
  it('puts what ranks higher first and keeps the sheet where nothing tells', () => {
    const parts = measuredParts(unitWith([]));
    const names = (list: readonly { part: { ref: string } }[]) => list.map((p) => p.part.ref);
    expect(names(ordered(parts, () => 0))).toEqual(['R1', 'R2', 'C1', 'Q1', 'R3']);
    expect(names(ordered(parts, (ref) => (ref === 'C1' ? 1 : 0)))).toEqual(['C1', 'R1', 'R2', 'Q1', 'R3']);
  });
});

describe('a part’s line', () => {
  it('keeps a line as it was typed', () => {
    expect(formatSheetLine(part('R2'))).toBe('R2 47k 10% a 0');
  });
});
