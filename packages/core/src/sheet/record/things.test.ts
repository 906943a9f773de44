import { UNIT_FIELDS, type Board, type Thing } from '@zemble/contract';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { inverseThings, putThing, thingsBetween } from './things.ts';

const SEED = 20261201;

/** A field with things put one after the other; fails where one cannot be. */
const putAll = (value: unknown, things: readonly Thing[]): unknown =>
  things.reduce<unknown>((now, thing) => {
    const result = putThing(now, thing);
    expect(result.ok).toBe(true);
    return result.ok ? result.value : now;
  }, value);

const id = fc.constantFrom('a', 'b', 'c', 'R1', 'R10', '__proto__', 'constructor');
const hole = fc.tuple(fc.nat(3), fc.nat(3));
const list = <T>(of: fc.Arbitrary<T>) => fc.array(of, { maxLength: 5 });
const board = fc.record({
  id,
  style: fc.constant('strip' as const),
  columns: fc.integer({ min: 1, max: 9 }),
  rows: fc.integer({ min: 1, max: 9 }),
  places: list(fc.record({ ref: id, holes: fc.record({ a: hole, b: hole }) })),
  cuts: list(hole),
  links: list(fc.record({ from: hole, to: hole })),
  terminals: list(fc.record({ net: id, hole })),
});
const wire = fc.record({ id, from: id, to: id });
const path = fc.option(
  fc.record({
    blocks: list(fc.record({ id, name: id }, { requiredKeys: ['id'] })),
    links: list(fc.record({ from: id, to: id, carries: fc.constantFrom('audio', 'supply') })),
  }),
  { nil: null },
);
/** Two states of a field, whatever led from one to the other. */
const states: readonly [string, fc.Arbitrary<unknown>][] = [
  ['boards', list(board)],
  ['wires', list(wire)],
  ['path', path],
  ['nudges', fc.dictionary(id, fc.record({ x: fc.nat(9), y: fc.nat(9) }))],
  [
    'ticks',
    fc.dictionary(id, fc.record({ at: fc.constantFrom('2026-01-01T00:00:00Z', '2026-01-02T00:00:00Z') })),
  ],
  [
    'intake',
    fc.record(
      { words: id, checks: fc.dictionary(id, fc.constantFrom('fine', 'was it')) },
      { requiredKeys: [] },
    ),
  ],
  ['notes', fc.string()],
];

describe('what differs between two states of a field', () => {
  it.each(states)('leads from one to the other, and back again: %s', (field, state) => {
    fc.assert(
      fc.property(state, state, (before, after) => {
        const things = thingsBetween(field, before, after);
        const there = putAll(before, things);
        expect(JSON.stringify(there) === JSON.stringify(after) || expect(there).toEqual(after)).toBeTruthy();
        expect(putAll(there, inverseThings(things))).toEqual(before);
        // What is there already is put again without a word, as a request that is sent twice.
        expect(
          putAll(
            there,
            things.filter(({ at }) => at.length > 1 && things.length === 1),
          ),
        ).toEqual(after);
      }),
      { seed: SEED, numRuns: 300 },
    );
  });

  it('says nothing of what is the same, in every field', () => {
    for (const field of UNIT_FIELDS) expect(thingsBetween(field, { a: [1] }, { a: [1] })).toEqual([]);
  });

  const empty: Board = {
    id: 'b1',
    style: 'strip',
    columns: 9,
    rows: 5,
    places: [],
    cuts: [],
    links: [],
    terminals: [],
  };
  const r = (ref: string, column: number) => ({
    ref,
    holes: { a: [column, 0] as const, b: [column, 4] as const },
  });

  it('is the part that was moved, and not the board', () => {
    const before = [{ ...empty, places: [r('R1', 1), r('R10', 2)] }];
    const after = [{ ...empty, places: [r('R1', 1), r('R10', 3)] }];
    expect(thingsBetween('boards', before, after)).toEqual([
      { at: ['boards', 'b1', 'places', 'R10'], was: r('R10', 2), now: r('R10', 3) },
    ]);
  });

  it('lets two hands at one board keep both what they did', () => {
    const seen = [{ ...empty, places: [r('R1', 1), r('R2', 2)] }];
    const mine = thingsBetween('boards', seen, [{ ...empty, places: [r('R1', 5), r('R2', 2)] }]);
    const theirs = thingsBetween('boards', seen, [
      { ...empty, places: [r('R1', 1), r('R2', 2)], cuts: [[3, 3]] },
    ]);
    const both = [{ ...empty, places: [r('R1', 5), r('R2', 2)], cuts: [[3, 3]] }];
    expect(putAll(putAll(seen, mine), theirs)).toEqual(both);
    expect(putAll(putAll(seen, theirs), mine)).toEqual(both);
  });

  it('is refused where both moved the same part, with where it is', () => {
    const seen = [{ ...empty, places: [r('R1', 1)] }];
    const [mine] = thingsBetween('boards', seen, [{ ...empty, places: [r('R1', 5)] }]);
    expect(putThing([{ ...empty, places: [r('R1', 7)] }], mine!)).toEqual({ ok: false, current: r('R1', 7) });
    expect(putThing([], mine!)).toEqual({ ok: false, current: null });
  });
});
