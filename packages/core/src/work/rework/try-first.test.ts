import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { circuitOf } from '../../testing/circuits.ts';
import { heardFactor, trialOf } from './try-first.ts';

const [r, c] = circuitOf('R4 10k a b\nC1 100n a b').parts as [never, never];

describe('a value is tried with clips', () => {
  it.each([
    // 10k with 39k across is 7.96k; 100n and 120n across are 220n (Kirchhoff).
    [r, 10_000, 8_000, 'Clip 39 kΩ across R4: 7.96 kΩ together, and nothing comes out.', '+R? 39k a b'],
    [c, 100e-9, 220e-9, 'Clip 120 nF across C1: 220 nF together, and nothing comes out.', '+C? 120n a b'],
    [
      c,
      100e-9,
      50e-9,
      'Lift a leg of C1 and clip 100 nF in series: 50 nF together.',
      '+C? 100n in series with C1.a',
    ],
  ])('%#', (part, from, to, sentence, line) => {
    expect(trialOf(part, from, to)).toEqual({ sentence, line });
  });

  it('in series where it must grow, with a trim pot that reaches it', () => {
    const { sentence } = trialOf(r, 10_000, 22_000);
    expect(sentence).toContain('clip 12 kΩ in series: 22 kΩ together. A trim pot of 22 kΩ');
  });

  it('lands near what is to be tried, whatever the values', () => {
    const value = fc.double({ min: 100, max: 1e6, noNaN: true });
    fc.assert(
      fc.property(value, fc.double({ min: 1.2, max: 8, noNaN: true }), fc.boolean(), (from, by, up) => {
        const to = up ? from * by : from / by;
        const together = /: ([\d.]+) ([kMm]?)Ω together/.exec(trialOf(r, from, to).sentence)!;
        const ohm = Number(together[1]) * { k: 1e3, M: 1e6, m: 1e-3, '': 1 }[together[2] as 'k']!;
        expect(Math.abs(ohm / to - 1)).toBeLessThan(0.16);
      }),
    );
  });
});

describe('what is heard', () => {
  it.each([
    // "Times slower" as the question: more of it is slower.
    ['too slow, half', false, 0.5],
    ['too fast', false, 1.4],
    ['too fast, twice', false, 2],
    ['too slow', false, 1 / 1.4],
    ['too quiet', true, 1.4],
    ['too loud, half', true, 0.5],
    ['half', false, 0.5],
    ['a bit more', true, 1.4],
    ['much slower', false, 2],
    ['x 1.5', true, 1.5],
    ['0,8 times', false, 0.8],
    ['just right', true, null],
    ['', true, null],
    ['x 0', true, null],
  ])('"%s" (more is faster: %s)', (text, isMoreFaster, factor) => {
    const heard = heardFactor(text, isMoreFaster);
    if (factor === null) expect(heard).toBeNull();
    else expect(heard).toBeCloseTo(factor, 3);
  });
});
