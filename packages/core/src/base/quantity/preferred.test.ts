import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  bestPair,
  combine,
  E_SERIES,
  nearestPreferred,
  preferredBetween,
  stepPreferred,
  type ESeries,
  type PairKind,
} from './preferred.ts';

/** IEC 60063, table of E3, E6, E12 and E24. */
const IEC_E24 =
  '1.0 1.1 1.2 1.3 1.5 1.6 1.8 2.0 2.2 2.4 2.7 3.0 3.3 3.6 3.9 4.3 4.7 5.1 5.6 6.2 6.8 7.5 8.2 9.1';
const IEC_E12 = '1.0 1.2 1.5 1.8 2.2 2.7 3.3 3.9 4.7 5.6 6.8 8.2';
const IEC_E6 = '1.0 1.5 2.2 3.3 4.7 6.8';
const IEC_E3 = '1.0 2.2 4.7';
/** IEC 60063, E48 (first and last of each row of the table). */
const IEC_E48_SOME = [
  1.0, 1.05, 1.1, 1.15, 1.21, 1.27, 1.33, 1.4, 1.47, 1.54, 1.62, 1.69, 1.78, 1.87, 1.96, 2.05, 9.53,
];
const IEC_E96_SOME = [
  1.0, 1.02, 1.05, 1.07, 1.1, 1.13, 1.15, 1.18, 1.21, 1.24, 1.27, 1.3, 4.99, 9.31, 9.53, 9.76,
];
const numbers = (text: string) => text.split(' ').map(Number);

describe('numbers at the end of all numbers', () => {
  it.each([1e308, 1e-308, 5e-324, Number.MAX_VALUE])('%s ends', (value) => {
    expect(preferredBetween(value / 10, value * 10, 'E24').length).toBeLessThan(100);
    expect(preferredBetween(value / 100, value * 100, 'E24').every(Number.isFinite)).toBe(true);
  });
});

describe('E series (IEC 60063)', () => {
  it('has the irregular tables up to E24', () => {
    expect(E_SERIES.E24).toEqual(numbers(IEC_E24));
    expect(E_SERIES.E12).toEqual(numbers(IEC_E12));
    expect(E_SERIES.E6).toEqual(numbers(IEC_E6));
    expect(E_SERIES.E3).toEqual(numbers(IEC_E3));
  });

  it('has the rounded powers of ten above, with the one exception of E192', () => {
    expect(E_SERIES.E48).toEqual(expect.arrayContaining(IEC_E48_SOME));
    expect(E_SERIES.E96).toEqual(expect.arrayContaining(IEC_E96_SOME));
    for (const [series, count] of [
      ['E48', 48],
      ['E96', 96],
      ['E192', 192],
    ] as const) {
      expect(new Set(E_SERIES[series]).size).toBe(count);
    }
    expect(E_SERIES.E192).toContain(9.2);
    expect(E_SERIES.E192).not.toContain(9.19);
  });

  it('contains E48 in E96 in E192', () => {
    expect(E_SERIES.E96).toEqual(expect.arrayContaining([...E_SERIES.E48]));
    expect(E_SERIES.E192).toEqual(expect.arrayContaining([...E_SERIES.E96]));
  });
});

const target = fc
  .tuple(fc.double({ min: 1, max: 9.999, noNaN: true }), fc.integer({ min: -9, max: 6 }))
  .map(([m, e]) => m * 10 ** e);
const someSeries = fc.constantFrom<ESeries>('E3', 'E6', 'E12');
const someKind = fc.constantFrom<PairKind>('resistor', 'capacitor', 'inductor');

describe('choosing values', () => {
  it('finds the nearest by relative error', () => {
    expect(nearestPreferred(5000, 'E12')).toBe(4700);
    expect(nearestPreferred(9700, 'E24')).toBe(10_000);
    expect(nearestPreferred(4.7e-9, 'E6')).toBe(4.7e-9);
  });

  it('finds the same pair as trying all of them', () => {
    fc.assert(
      fc.property(
        target,
        someSeries,
        fc.constantFrom('series' as const, 'parallel' as const),
        someKind,
        (t, series, wiring, kind) => {
          const all = preferredBetween(t / 100, t * 100, series);
          let least = Number.POSITIVE_INFINITY;
          for (const a of all)
            for (const b of all) least = Math.min(least, Math.abs(combine(a, b, wiring, kind) / t - 1));
          expect(Math.abs(bestPair(t, series, wiring, kind).error)).toBeCloseTo(least, 10);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('wires capacitors the other way round', () => {
    expect(combine(1e-6, 1e-6, 'parallel', 'capacitor')).toBe(2e-6);
    expect(combine(1000, 1000, 'series', 'resistor')).toBe(2000);
    expect(combine(1000, 1000, 'parallel', 'inductor')).toBe(500);
  });

  it('steps along the series and back again', () => {
    fc.assert(
      fc.property(target, fc.integer({ min: 1, max: 30 }), (t, clicks) => {
        const start = nearestPreferred(t, 'E24');
        const up = stepPreferred(start, clicks, 'E24');
        return up > start && stepPreferred(up, -clicks, 'E24') === start;
      }),
    );
  });
});
