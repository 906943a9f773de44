import { describe, expect, it } from 'vitest';
import { boardWalk } from './board-walk.ts';
import { partialUnit } from '../../testing/partial-unit.ts';

const unit = partialUnit({
  parts: [
    ['R1', { a: 'in', b: 'x' }],
    ['R2', { a: 'x', b: '0' }],
    ['R3', { a: 'far', b: '0' }],
    ['C1', { a: 'nowhere', b: '0' }],
    ['C2', { a: 'nowhere', b: '0' }],
  ].map(([ref, pins]) => ({ id: ref, part: { ref, kind: 'resistor', pins } })),
  path: { blocks: [], links: [], testPoints: [{ id: 'TP1', net: 'in' }] },
  photos: [
    {
      width: 200,
      height: 100,
      points: [
        { target: 'TP1', x: 0.9, y: 0.9 },
        { target: 'x', x: 0.1, y: 0.1 },
        { target: 'C2', x: 0.2, y: 0.1 },
      ],
    },
    { width: 100, height: 100, points: [{ target: 'far', x: 0, y: 0 }] },
  ],
});

describe('a walk over the board', () => {
  it('goes from the top left to the nearest part left, photo by photo; without a place a part is not in it', () => {
    // R2 stands at the point of x, C2 at its own, R1 between x and the test point; R3 is on the other photo.
    expect(boardWalk(unit)).toEqual(['R2', 'C2', 'R1', 'R3']);
  });

  it('is empty without photos', () => {
    expect(boardWalk({ ...unit, photos: [] })).toEqual([]);
  });
});
