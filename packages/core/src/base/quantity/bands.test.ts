import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bandColour, bandsFor, readBands, readBandsEitherWay, type BandColour } from './bands.ts';
import { E_SERIES } from './preferred.ts';

const bands = (text: string) => text.split(' ') as BandColour[];

describe('colour code (IEC 60062)', () => {
  it.each([
    ['brown black red', 1000, 0.2],
    ['yellow violet red gold', 4700, 0.05],
    ['red red gold gold', 2.2, 0.05],
    ['yellow violet silver silver', 0.47, 0.1],
    ['brown black black red brown', 10_000, 0.01],
    ['yellow white white brown brown', 4990, 0.01],
    ['green blue black orange violet', 560_000, 0.001],
  ])('reads %s', (text, ohms, tolerance) => {
    expect(readBands(bands(text))).toEqual({ ohms, tolerance });
  });

  it('reads the sixth band as a temperature coefficient', () => {
    expect(readBands(bands('brown black black red brown red'))).toEqual({
      ohms: 10_000,
      tolerance: 0.01,
      ppmPerK: 50,
    });
  });

  it('gives both readings where the bands can be read from either end', () => {
    expect(readBandsEitherWay(bands('brown black black red brown')).map((r) => r.ohms)).toEqual([
      10_000, 120,
    ]);
    expect(readBandsEitherWay(bands('yellow violet red gold'))).toHaveLength(1);
  });

  it('refuses what is no code', () => {
    expect(readBands(bands('gold red red gold'))).toBeUndefined();
    expect(readBands(bands('red red'))).toBeUndefined();
    expect(readBands(bands('black black black gold'))).toBeUndefined();
    expect(bandColour('mauve')).toBeUndefined();
  });

  it('knows the short forms', () => {
    expect(['ylw', 'vio', 'rd', 'gld', 'gray'].map(bandColour)).toEqual([
      'yellow',
      'violet',
      'red',
      'gold',
      'grey',
    ]);
  });

  it('writes bands that read back, for every E24 and E96 value', () => {
    const choice = fc.record({
      exponent: fc.integer({ min: -1, max: 6 }),
      isFine: fc.boolean(),
      index: fc.nat(95),
    });
    fc.assert(
      fc.property(choice, ({ exponent, isFine, index }) => {
        const series = isFine ? E_SERIES.E96 : E_SERIES.E24;
        const ohms = Number(`${series[index % series.length]}e${exponent}`);
        const tolerance = isFine ? 0.01 : 0.05;
        const written = bandsFor(ohms, tolerance);
        expect(written).toBeDefined();
        expect(readBands(written!)).toEqual({ ohms, tolerance });
      }),
    );
  });
});
