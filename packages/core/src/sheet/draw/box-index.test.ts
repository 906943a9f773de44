import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Occupancy } from './occupancy.ts';
import { BoxIndex } from './box-index.ts';

const box = fc
  .tuple(
    fc.integer({ min: -60, max: 60 }),
    fc.integer({ min: -60, max: 60 }),
    fc.integer({ min: 0, max: 50 }),
    fc.integer({ min: 0, max: 8 }),
  )
  .map(([left, top, width, height]) => ({ left, top, right: left + width, bottom: top + height }));

describe('boxes on paper', () => {
  it('are found just as by looking at each of them', () => {
    fc.assert(
      fc.property(fc.array(box, { maxLength: 20 }), box, (boxes, wish) => {
        const overlapping = boxes.some(
          (b) => wish.left < b.right && b.left < wish.right && wish.top < b.bottom && b.top < wish.bottom,
        );
        expect(new BoxIndex(boxes).isFree(wish)).toBe(!overlapping);
      }),
    );
  });

  it('are taken unit by unit, edges included, wherever the sheet has to grow to', () => {
    fc.assert(
      fc.property(fc.array(box, { maxLength: 12 }), box, fc.nat(3), (boxes, wish, margin) => {
        const sheet = new Occupancy();
        for (const b of boxes) sheet.take(b);
        const touching = (m: number) =>
          boxes.some(
            (b) =>
              wish.left - m <= b.right &&
              b.left <= wish.right + m &&
              wish.top - m <= b.bottom &&
              b.top <= wish.bottom + m,
          );
        expect(sheet.isFree(wish, margin)).toBe(!touching(margin));
        expect(sheet.isTaken(wish.left, wish.top)).toBe(
          boxes.some(
            (b) => b.left <= wish.left && wish.left <= b.right && b.top <= wish.top && wish.top <= b.bottom,
          ),
        );
        for (const b of boxes) sheet.release(b);
        expect(sheet.isFree(wish, margin)).toBe(true);
      }),
    );
  });
});
