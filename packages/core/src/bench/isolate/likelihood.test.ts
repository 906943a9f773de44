import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { agreement, densityOf, STRAY } from './likelihood.ts';

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const prediction = fc.record({
  value: fc.option(number(-10, 10), { freq: 8 }),
  moves: fc.array(number(-1, 1), { minLength: 3, maxLength: 3 }),
  own: number(0.05, 1),
});
const reading = fc.option(number(-20, 20), { freq: 8 });

describe('readings under what is predicted of them', () => {
  it('have one by itself as dense as all together where there is but one', () => {
    fc.assert(
      fc.property(fc.option(prediction, { freq: 8 }), reading, number(1, 40), (p, value, span) => {
        const alone = agreement([p], [value], [span]).log;
        expect(Math.log(densityOf(p, value, span))).toBeCloseTo(alone, 9);
      }),
    );
  });

  it('leave one out as if it had not been taken, where none of the others is astray', () => {
    const near = fc.tuple(prediction, number(-0.5, 0.5)).map(([p, off]) => ({
      p,
      value: p.value === null ? null : p.value + off * p.own,
    }));
    fc.assert(
      fc.property(fc.array(near, { minLength: 2, maxLength: 5 }), (list) => {
        // In so wide a span no reading is taken for astray.
        const spans = list.map(() => 1e9);
        const [predicted, measured] = [list.map((l) => l.p), list.map((l) => l.value)];
        const { without } = agreement(predicted, measured, spans);
        list.forEach((_, i) => {
          const others = <T>(all: readonly T[]) => all.filter((_each, k) => k !== i);
          const alone = agreement(others(predicted), others(measured), others(spans)).log;
          expect(without[i]!).toBeCloseTo(alone, 5);
        });
      }),
    );
  });

  it('are hardly astray where they were read twice: the square of the chance', () => {
    const far = [{ value: 0, moves: [], own: 1e-3 }];
    const [once, twice] = [false, true].map((isSure) => agreement(far, [10], [20], [isSure]));
    // So far away it can only be astray: the density is that chance over the span.
    expect(once!.astray[0]).toBeGreaterThan(0.99);
    expect(Math.exp(once!.log)).toBeCloseTo(STRAY / 20, 6);
    expect(twice!.log).toBeLessThan(once!.log - 1);
  });
});
