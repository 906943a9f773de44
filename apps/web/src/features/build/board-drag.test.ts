import type { Board } from '@zemble/contract';
import { blankBoard } from '@zemble/core';
import { describe, expect, it } from 'vitest';
import { draggedTo } from './board-drag.ts';

const place = (ref: string, column: number): Board['places'][number] => ({
  ref,
  holes: { a: [column, 1], b: [column, 4] },
});
const board: Board = {
  ...blankBoard('b1', 'strip', 24, 9),
  places: [place('R1', 1), place('R10', 5), place('U1', 9), place('U10', 13)],
};
const columns = (of: Board) => Object.fromEntries(of.places.map((p) => [p.ref, p.holes.a![0]]));

describe('a part that is dragged', () => {
  it.each([
    ['R10', { R1: 1, R10: 7, U1: 9, U10: 13 }],
    ['R1', { R1: 3, R10: 5, U1: 9, U10: 13 }],
    ['U10B', { R1: 1, R10: 5, U1: 9, U10: 15 }],
    ['U1A', { R1: 1, R10: 5, U1: 11, U10: 13 }],
  ])('is that part, or its package, and none whose name begins alike: %s', (ref, after) => {
    const drag = { ref, from: [5, 2] as const, board };
    expect(columns(draggedTo(drag, [7, 2]))).toEqual(after);
    expect(draggedTo(drag, [5, 2])).toBe(board);
  });
});
