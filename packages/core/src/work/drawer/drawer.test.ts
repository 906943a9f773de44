import type { Change, StockItem } from '@zemble/contract';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { circuitOf } from '../../testing/circuits.ts';
import { E_SERIES } from '../../base/quantity/index.ts';
import {
  makeUp,
  matching,
  needsOf,
  parseStockLine,
  readDrawerCsv,
  searchDrawer,
  substitutesFor,
  supplyFor,
  takenOut,
  writeDrawerCsv,
} from './index.ts';

const resistor = (value: number, count = 1, extra: Partial<StockItem> = {}): StockItem => ({
  kind: 'resistor',
  value,
  count,
  place: 'A1',
  ...extra,
});

describe('a drawer as a table', () => {
  it('is read in any notation of the trade', () => {
    const { items, problems } = readDrawerCsv(`kind,value,tolerance,rating,technology,count,place
resistor,4k7,1%,0.25W,metal film,50,A1
capacitor,0.47u,10%,63V,film,12,B2
capacitor,474,,100 V,,3,B3
R,22R,5%,1/4W,,7,A2
opamp,TL072,,,,4,C1
pot,100k,,,,2,D1`);
    expect(problems).toEqual([]);
    expect(items).toEqual([
      { ...resistor(4700, 50), tolerance: 0.01, power: 0.25, technology: 'metal film' },
      {
        kind: 'capacitor',
        value: 470e-9,
        tolerance: 0.1,
        voltage: 63,
        technology: 'film',
        count: 12,
        place: 'B2',
      },
      { kind: 'capacitor', value: 470e-9, voltage: 100, count: 3, place: 'B3' },
      { ...resistor(22, 7), tolerance: 0.05, power: 0.25, place: 'A2' },
      { kind: 'opamp', value: 'TL072', count: 4, place: 'C1' },
      { kind: 'potentiometer', value: 100_000, count: 2, place: 'D1' },
    ]);
  });

  it('says of each line that is nonsense what is wrong there, and keeps the others', () => {
    const { items, problems } = readDrawerCsv(
      [
        'resistor;1k;5%;;;10;A1',
        'flux;1k;;;;1;A1',
        '__proto__;1k;;;;1;A1',
        'constructor;1k;;;;1;A1',
        'resistor;blue;;;;1;A1',
        'resistor;1k;lots;;;1;A1',
        'resistor;1k;;hot;;1;A1',
        'resistor;1k;;;butter;1;A1',
        'resistor;1k;;;;-3;A1',
        'resistor;1k;;;;2.5;A1',
        'resistor;0;;;;1;A1',
        'resistor;1k;5%;;;5;A1',
      ].join('\n'),
    );
    expect(items).toEqual([{ ...resistor(1000, 15), tolerance: 0.05 }]);
    expect(problems.map((p) => p.message)).toEqual(
      [2, 3, 4, 5, 6, 7, 8, 9, 10, 11].map((line) => expect.stringContaining(`line ${line}`) as string),
    );
    expect(problems[7]!.message).toContain('"-3" is not a count');
  });

  it('reads back what it wrote', () => {
    // Values of a kind from the smallest that is made to the largest, as powers of ten.
    const sort = (kind: StockItem['kind'], min: number, max: number) =>
      fc
        .tuple(fc.constantFrom(...E_SERIES.E96), fc.integer({ min, max }))
        .map(([m, e]) => ({ kind, value: m * 10 ** e }));
    const item = fc.record({
      sort: fc.oneof(sort('resistor', -1, 7), sort('capacitor', -12, -2), sort('inductor', -8, 1)),
      tolerance: fc.constantFrom(undefined, 0.01, 0.05, 0.2),
      voltage: fc.constantFrom(undefined, 16, 63, 450),
      power: fc.constantFrom(undefined, 0.25, 5),
      technology: fc.constantFrom(undefined, 'film' as const, 'carbon film' as const),
      count: fc.integer({ min: 0, max: 900 }),
      place: fc.string({ maxLength: 12 }).map((s) => s.trim()),
    });
    fc.assert(
      fc.property(
        fc.uniqueArray(item, { selector: (i) => `${i.sort.value}${i.place}`, maxLength: 12 }),
        (list) => {
          const clean = list.map(
            ({ sort: s, ...i }) => JSON.parse(JSON.stringify({ ...s, ...i })) as StockItem,
          );
          const { items, problems } = readDrawerCsv(writeDrawerCsv(clean));
          expect(problems).toEqual([]);
          expect(items).toHaveLength(clean.length);
          items.forEach((read, i) => {
            const wrote = clean[i]!;
            expect((read.value as number) / (wrote.value as number)).toBeCloseTo(1, 8);
            expect({ ...read, value: 0 }).toEqual({ ...wrote, value: 0 });
          });
        },
      ),
      { numRuns: 200 },
    );
  });

  it('keeps a cell from being taken for a formula', () => {
    const text = writeDrawerCsv([resistor(1000, 1, { place: '=2+3' })]);
    expect(text).toContain("'=2+3");
    expect(readDrawerCsv(text).items[0]!.place).toBe('=2+3');
  });
});

describe('one item in a line', () => {
  it.each([
    [
      '4k7 1% 0.25W metal film x50 in A3',
      {
        kind: 'resistor',
        value: 4700,
        tolerance: 0.01,
        power: 0.25,
        technology: 'metal film',
        count: 50,
        place: 'A3',
      },
    ],
    [
      '100n 63V film 20x in B 2',
      { kind: 'capacitor', value: 100e-9, voltage: 63, technology: 'film', count: 20, place: 'B 2' },
    ],
    ['22R', { kind: 'resistor', value: 22, count: 1, place: '' }],
    ['TL072 x4 in C1', { kind: 'opamp', value: 'TL072', count: 4, place: 'C1' }],
    ['pot 100k in D1', { kind: 'potentiometer', value: 100_000, count: 1, place: 'D1' }],
    ['opamp XY123', { kind: 'opamp', value: 'XY123', count: 1, place: '' }],
  ])('%s', (line, item) => {
    const read = parseStockLine(line);
    expect(read.ok && read.item).toEqual(item);
  });

  it.each([
    ['', 'no part'],
    ['in A3', 'no part'],
    ['banana', 'neither a value nor a type'],
    ['4k7 blue', '"blue" is no tolerance'],
    ['4k7 500%', '100 % at most'],
    ['pot banana', 'neither a value'],
  ])('"%s" is refused with its reason', (line, reason) => {
    const read = parseStockLine(line);
    expect(read.ok ? '' : read.problem.message).toContain(reason);
  });
});

describe('a search', () => {
  const drawer = [
    resistor(4700, 5, { place: 'A3', technology: 'metal film' }),
    resistor(47_000, 5, { place: 'B3' }),
    { kind: 'opamp' as const, value: 'TL072', count: 2, place: 'C1' },
  ];
  it.each([
    ['4k7', [4700]],
    ['4.7k', [4700]],
    ['a3 metal', [4700]],
    ['tl07', ['TL072']],
    ['resistor', [4700, 47_000]],
    ['banana', []],
    ['', [4700, 47_000, 'TL072']],
  ])('for "%s"', (text, values) => {
    expect(searchDrawer(drawer, text).map((i) => i.value)).toEqual(values);
  });
});

describe('what suits', () => {
  const drawer = [
    resistor(1000, 3, { power: 2, place: 'big' }),
    resistor(1000, 1, { power: 0.25, place: 'small' }),
    resistor(1000, 9, { power: 0.125, place: 'tiny' }),
    resistor(1000, 0, { power: 0.5, place: 'empty' }),
  ];

  it('bears what it must, and is no better than need be', () => {
    const places = matching(drawer, { kind: 'resistor', value: 1000, power: 0.25 }).map((i) => i.place);
    expect(places).toEqual(['small', 'big']);
  });

  it('makes up 22M, which is no longer made, of 10M and 12M', () => {
    const megohms = [10e6, 12e6, 4.7e6].map((v) => resistor(v));
    const [best] = makeUp(megohms, { kind: 'resistor', value: 22e6 }, 'resistor');
    expect(best).toMatchObject({ made: 'series', value: 22e6, error: 0 });
    expect(best!.of.map((i) => i.value)).toEqual([12e6, 10e6]);
  });

  it('adds capacitors in parallel, and does not use one part twice', () => {
    const farads = [1e-6, 2.2e-6].map((value): StockItem => ({
      kind: 'capacitor',
      value,
      count: 1,
      place: '',
    }));
    const ways = makeUp(farads, { kind: 'capacitor', value: 2e-6 }, 'capacitor');
    expect(ways.find((w) => w.made === 'parallel')!.value).toBeCloseTo(3.2e-6, 12);
    const twice = makeUp([{ ...farads[0]!, count: 2 }], { kind: 'capacitor', value: 2e-6 }, 'capacitor');
    expect(twice[0]).toMatchObject({ made: 'parallel', value: 2e-6 });
  });
});

describe('substitutes', () => {
  const sentences = (value: number, drawer: readonly StockItem[] = []) =>
    substitutesFor({ kind: 'resistor', value }, drawer).join(' ');
  it('say what is no longer made, and of what it is made up', () => {
    expect(sentences(22e6)).toBe('22 MΩ is no longer made: 10 MΩ + 12 MΩ in series.');
  });
  it('say what stands in no series', () => {
    expect(sentences(19_300)).toBe('19.3 kΩ is in no series: 20 kΩ (E24) or 19.1 kΩ (E96).');
    expect(sentences(4700)).toBe('');
  });
  it('name what is there', () => {
    expect(sentences(5600, [resistor(3900, 1, { place: 'A1' }), resistor(1700, 1, { place: 'A2' })])).toBe(
      'In the drawer: 3.9 kΩ (A1) and 1.7 kΩ (A2) in series make 5.6 kΩ.',
    );
  });
});

describe('what changes need', () => {
  const change = (id: string, state: Change['state'], steps: Change['steps']): Change => ({
    id,
    name: id,
    purpose: 'modification',
    state,
    steps,
  });
  const circuit = {
    ...circuitOf('R1 1k a 0\nC1 100n a 0\nU1 TL072 plus=a minus=m out=m vplus=v vminus=0\nV1 9V v 0'),
    changes: [
      change('m1', 'planned', [
        { do: 'fit', ref: 'R1', value: 2200 },
        { do: 'add', part: circuitOf('R7 2k2 a 0').parts[0]! },
        { do: 'lift', pin: 'C1.a' },
      ]),
      change('m2', 'done', [
        { do: 'fit', ref: 'C1', value: 220e-9 },
        { do: 'fit', ref: 'U1', part: { model: 'NE5532' } },
      ]),
      change('m3', 'dropped', [{ do: 'fit', ref: 'C1', value: 1e-6 }]),
    ],
  };

  it('is counted by sort, taken from the drawer as far as it goes, and the rest bought', () => {
    const needs = needsOf(circuit);
    expect(needs.map((n) => [n.ref, n.wanted.value])).toEqual([
      ['R1', 2200],
      ['R7', 2200],
    ]);
    const stock = resistor(2200, 1, { place: 'A7' });
    expect(supplyFor(needs, [stock])).toMatchObject([
      { count: 2, reserved: [{ item: stock, count: 1 }], buy: 1, of: [0, 1] },
    ]);
    expect(supplyFor(needs, [])).toMatchObject([{ reserved: [], buy: 2 }]);
  });

  it('leaves over what was taken out by what is done', () => {
    expect(takenOut(circuit).map((n) => [n.ref, n.wanted.value])).toEqual([
      ['C1', 100e-9],
      ['U1', 'TL072'],
    ]);
  });
});
