import type { Hole } from '@zemble/contract';
import { describe, expect, it } from 'vitest';
import { boardFrame } from './board-geometry.ts';
import { landmarks, marksOn, photoTransform } from './photo-on-board.ts';

const BOARD = { columns: 11, rows: 6 } as const;
const body = (ref: string, a: Hole, b: Hole) => ({
  pins: [
    { ref, pin: 'a', hole: a },
    { ref, pin: 'b', hole: b },
  ],
});
const BODIES = [body('R1', [2, 1], [5, 1]), body('R2', [9, 4], [9, 5])];
const photo = (points: readonly (readonly [string, number, number])[] = [], side?: 'solder') => ({
  id: 'p',
  width: 400,
  height: 300,
  points: points.map(([target, x, y]) => ({ target, x, y })),
  overlay: side === undefined ? {} : { side },
});
/** Where a transform puts a pixel. */
const put = (transform: string, x: number, y: number) => {
  const [a, b, c, d, e, f] = transform.match(/-?[\d.]+(?:e-?\d+)?/g)!.map(Number);
  return { x: a! * x + c! * y + e!, y: b! * x + d! * y + f! };
};

describe('two holes by which a photo is laid', () => {
  it('are the pins that lie farthest apart, or two corners of a bare board', () => {
    expect(landmarks(BOARD, BODIES)).toEqual([
      { hole: [2, 1], pin: 'R1.a' },
      { hole: [9, 5], pin: 'R2.b' },
    ]);
    expect(landmarks(BOARD, [])).toEqual([{ hole: [0, 0] }, { hole: [10, 5] }]);
  });

  it('are known where two pads are marked; what was laid by hand goes before them', () => {
    const pads = photo([
      ['R1.a', 0.1, 0.2],
      ['R1.b', 0.4, 0.2],
      ['R2.b', 0.8, 0.9],
      ['R9.a', 0.5, 0.5],
    ]);
    expect(marksOn(pads, {}, BODIES)!.map((m) => m.hole)).toEqual([
      [2, 1],
      [9, 5],
    ]);
    expect(marksOn(photo([['R1.a', 0.1, 0.2]]), {}, BODIES)).toBeUndefined();
    const marks = [
      { hole: [0, 0], at: { x: 0, y: 0 } },
      { hole: [10, 5], at: { x: 1, y: 1 } },
    ] as const;
    expect(marksOn(pads, { photo: { photoId: 'p', marks } }, BODIES)).toBe(marks);
    expect(marksOn(pads, { photo: { photoId: 'other', marks } }, BODIES)).not.toBe(marks);
  });
});

describe('a photo under a layout', () => {
  const marks = [
    { hole: [2, 1], at: { x: 0.25, y: 0.2 } },
    { hole: [9, 5], at: { x: 0.75, y: 0.8 } },
  ] as const;

  it.each([
    ['the parts’ side from the parts’ side', undefined, 'parts'],
    ['the solder side from the parts’ side', 'solder', 'parts'],
    ['the solder side from the copper side', 'solder', 'copper'],
    ['the parts’ side from the copper side', undefined, 'copper'],
  ] as const)('has its two holes over those of the layout: %s', (_, seen, side) => {
    const frame = boardFrame(BOARD, side);
    const transform = photoTransform(photo([], seen), marks, frame, side)!;
    for (const { hole, at } of marks) {
      const is = put(transform, at.x * 400, at.y * 300);
      expect(is.x).toBeCloseTo(frame.at(hole).x, 6);
      expect(is.y).toBeCloseTo(frame.at(hole).y, 6);
    }
    // Mirrored where the photo is of the other side: the determinant of the transform is negative then.
    const [a, b, c, d] = transform.match(/-?[\d.]+(?:e-?\d+)?/g)!.map(Number);
    expect(a! * d! - b! * c! < 0).toBe((seen === 'solder') !== (side === 'copper'));
  });

  it('is not laid where both holes are one', () => {
    const one = [marks[0], { ...marks[0], hole: [9, 5] as const }] as const;
    expect(photoTransform(photo(), one, boardFrame(BOARD, 'parts'), 'parts')).toBeUndefined();
  });
});
