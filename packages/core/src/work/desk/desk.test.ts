import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { StockItem } from '@zemble/contract';
import { CALCULATIONS, followed, usualValues, withField, type Calculation } from './index.ts';

const calculation = (id: string): Calculation => CALCULATIONS.find((c) => c.id === id)!;
/** A field of a calculation with others given. */
function reads(id: string, given: Record<string, number>, field: string): number {
  const it = calculation(id);
  const answer = followed(it, { ...usualValues(it), ...given });
  return answer.ok ? answer.values[field]! : Number.NaN;
}
const says = (id: string, given: Record<string, number>, drawer: readonly StockItem[] = []) => {
  const it = calculation(id);
  const answer = followed(it, { ...usualValues(it), ...given });
  return answer.ok ? (it.says?.(answer.values, drawer) ?? []).join(' ') : answer.sentence;
};

describe('worked examples', () => {
  it.each([
    // A divider of 10k and 10k on 9 V loaded with 10k: 9 * 5/15.
    ['divider', { load: 10_000 }, 'vout', 3],
    // 1/(2 pi 10k 100n).
    ['rc', {}, 'f', 159.155],
    ['rc', {}, 'tau', 1e-3],
    // 1 mH and 100 nF: 15.915 kHz, 100 ohm (handbook example).
    ['lc', {}, 'f', 15_915.5],
    ['lc', {}, 'z', 100],
    ['two-resistors', { a: 100, b: 150 }, 'parallel', 60],
    ['two-capacitors', { a: 100e-9, b: 150e-9 }, 'series', 60e-9],
    // +4 dBu is 1.228 V; -10 dBV is 0.3162 V (studio line levels).
    ['levels', { v: 1.2277 }, 'dbu', 4],
    ['levels', { v: 0.31623 }, 'dbv', -10],
    // 10 W in 8 ohm is 8.944 V.
    ['levels', { v: 8.94427, load: 8 }, 'w', 10],
    ['decibels', { a: 1, b: 2 }, 'db', 6.0206],
    ['chip', { rf: 100_000, rg: 10_000 }, 'plus', 20.8279],
    ['chip', { rf: 100_000, rg: 10_000 }, 'minus', 20],
    ['scope', { divIn: 4, perIn: 0.005, divOut: 5, perOut: 0.2 }, 'times', 50],
    // 555 data sheet: RA 1k, RB 100k, C 10n: 1.44/(201k * 10n) = 716 Hz.
    ['astable', {}, 'f', 717.73],
    ['astable', { ra: 10_000, rb: 10_000 }, 'duty', 2 / 3],
    ['delay', { r: 1e6, c: 10e-6 }, 't', 10.986],
    ['led', { v: 9, vf: 2, i: 0.01 }, 'r', 700],
    // 20 W, 1.5 + 0.5 + 2 K/W in 25 degC: 105 degC.
    ['heat', { p: 20, ta: 25, jc: 1.5, cs: 0.5, sa: 2 }, 'tj', 105],
    ['battery', { ah: 0.5, i: 0.005 }, 'h', 100],
    ['bank', { c: 0.01, v0: 12, v: 8, i: 0.04 }, 't', 1],
    // 100 uF over 2k2 from 325 V to 50 V: 0.22 s * ln 6.5.
    ['discharge', { v: 50 }, 't', 0.41179],
    // 5k to 8 ohm is 25:1.
    ['windings', { n1: 25, n2: 1, zs: 8 }, 'zp', 5000],
  ])('%s %j: %s', (id, given, field, expected) => {
    expect(reads(id, given as Record<string, number>, field) / expected).toBeCloseTo(1, 3);
  });

  it('say codes, colours, tolerances and what is worth a caution', () => {
    expect(says('capacitor-code', { c: 470e-9 })).toContain('474, 470n, 470000 pF');
    expect(says('bands', { r: 4700 })).toContain('yellow, violet, red, gold');
    // 100k +5 % over 10k -5 %: 1 + 105/9.5.
    expect(says('chip', {})).toContain('21.62 dB');
    expect(says('discharge', {})).toContain('This can hurt');
    expect(says('discharge', { v0: 12 })).not.toContain('hurt');
    expect(says('heat', { sa: 30 })).toContain('Too hot');
    const drawer: StockItem[] = [
      { kind: 'resistor', value: 12_000, count: 1, place: 'A4' },
      { kind: 'resistor', value: 6_800, count: 1, place: 'A3' },
    ];
    expect(says('made-resistor', { value: 19_000 }, drawer)).toContain(
      '12 kΩ (A4) and 6.8 kΩ (A3) in series',
    );
  });
});

describe.each(CALCULATIONS.map((c) => [c.title, c] as const))('%s', (_, it_) => {
  it('comes out with what it usually is', () => {
    expect(followed(it_, usualValues(it_)).ok).toBe(true);
  });

  it('can be read from either end: what a field follows to brings it back', () => {
    const given = usualValues(it_);
    const factor = fc.double({ min: 0.3, max: 3, noNaN: true });
    for (const field of it_.following)
      fc.assert(
        fc.property(factor, factor, (f, g) => {
          // Two given fields are moved, then the following one is set to what it says and must stay there.
          const moved = { ...given };
          for (const [i, one] of it_.given.entries()) moved[one.id] = given[one.id]! * (i % 2 === 0 ? f : g);
          const there = followed(it_, moved);
          if (!there.ok) return;
          const target = there.values[field.id]!;
          const back = withField(
            it_,
            { ...moved, [field.moves]: moved[field.moves]! * 1.5 },
            field.id,
            target,
          );
          expect(back.ok).toBe(true);
          if (back.ok) expect(back.given[field.moves]! / moved[field.moves]!).toBeCloseTo(1, 6);
        }),
        { numRuns: 30 },
      );
  });

  it('ends, and says nothing that is no number, from the smallest numbers to the largest', () => {
    for (const field of [...it_.given, ...it_.following])
      for (const extreme of [1e-300, 1e-30, 1e30, 1e150, 1e308]) {
        const set = withField(it_, usualValues(it_), field.id, extreme);
        const there = set.ok ? followed(it_, set.given) : null;
        if (!there?.ok) continue;
        const words = [...(it_.says?.(there.values, []) ?? []), it_.line?.(there.values) ?? ''].join(' ');
        expect(words).not.toMatch(/NaN|Infinity|undefined/);
      }
  });

  it('refuses nonsense with a sentence, never with a number that is none', () => {
    for (const field of it_.given)
      for (const bad of [0, -1, Number.NaN, Number.POSITIVE_INFINITY]) {
        const answer = followed(it_, { ...usualValues(it_), [field.id]: bad });
        if (answer.ok) for (const v of Object.values(answer.values)) expect(Number.isFinite(v)).toBe(true);
        else expect(answer.sentence.length).toBeGreaterThan(5);
      }
    for (const field of it_.following) {
      const back = withField(it_, usualValues(it_), field.id, -1e30);
      if (!back.ok) expect(back.sentence).toMatch(/^No .* makes it that\.$/);
    }
  });
});
