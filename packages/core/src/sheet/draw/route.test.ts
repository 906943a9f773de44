import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Occupancy } from './occupancy.ts';
import { routeNets, type Terminal, type Wire } from './route.ts';
import type { Box, Point } from './symbols.ts';

const terminal = (net: string, x: number, y: number, dx: number, dy: number): Terminal => ({
  net,
  x,
  y,
  dx,
  dy,
});
const lengthOf = (wires: readonly Wire[]) =>
  wires.reduce((sum, { from, to }) => sum + Math.abs(from.x - to.x) + Math.abs(from.y - to.y), 0);
const box = (left: number, top: number, right: number, bottom: number): Box => ({ left, top, right, bottom });

/** The shortest way between two points over free units, by breadth-first search: no heuristics, no costs of bends. */
function shortest(from: Point, to: Point, obstacles: readonly Box[]): number {
  const isBlocked = (x: number, y: number) =>
    obstacles.some((o) => x >= o.left && x <= o.right && y >= o.top && y <= o.bottom);
  const seen = new Set([`${from.x},${from.y}`]);
  let ring = [from];
  for (let distance = 0; ring.length > 0 && distance < 400; distance += 1) {
    const next: Point[] = [];
    for (const { x, y } of ring) {
      if (x === to.x && y === to.y) return distance;
      for (const [dx, dy] of [
        [1, 0],
        [-1, 0],
        [0, 1],
        [0, -1],
      ] as const) {
        const at = { x: x + dx, y: y + dy };
        const key = `${at.x},${at.y}`;
        const isEnd = at.x === to.x && at.y === to.y;
        if (seen.has(key) || Math.abs(at.x) > 80 || Math.abs(at.y) > 80 || (!isEnd && isBlocked(at.x, at.y)))
          continue;
        seen.add(key);
        next.push(at);
      }
    }
    ring = next;
  }
  return Number.POSITIVE_INFINITY;
}

describe('routing', () => {
  it('joins two pins that look at one another by one straight wire', () => {
    const { wires, dots, unrouted, crossings } = routeNets(
      [box(-2, -1, 0, 1), box(10, -1, 12, 1)],
      [terminal('a', 0, 0, 1, 0), terminal('a', 10, 0, -1, 0)],
    );
    expect(lengthOf(wires)).toBe(10);
    expect(wires.every((w) => w.from.y === 0 && w.to.y === 0)).toBe(true);
    expect([dots, unrouted, crossings]).toEqual([[], [], 0]);
  });

  it('goes around what stands between, never longer than a few units more than the shortest way', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 6, max: 20 }),
        fc.integer({ min: -8, max: 8 }),
        fc.integer({ min: 2, max: 7 }),
        (distance, shift, half) => {
          const middle = Math.round(distance / 2) + 2;
          const obstacles = [
            box(-2, -1, 0, 1),
            box(distance + 4, shift - 1, distance + 6, shift + 1),
            box(middle, -half, middle, half),
          ];
          const ends = [terminal('a', 0, 0, 1, 0), terminal('a', distance + 4, shift, -1, 0)] as const;
          const { wires, unrouted } = routeNets(obstacles, ends);
          expect(unrouted).toEqual([]);
          const least = shortest(ends[0], ends[1], obstacles);
          expect(lengthOf(wires)).toBeGreaterThanOrEqual(least);
          // A bend costs as much as four units: few more than the shortest way are worth fewer bends.
          expect(lengthOf(wires)).toBeLessThanOrEqual(least + 8);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('lets two nets cross squarely, and counts it', () => {
    const { wires, crossings, unrouted } = routeNets(
      [box(-2, 4, 0, 6), box(10, 4, 12, 6), box(4, -2, 6, 0), box(4, 10, 6, 12)],
      [
        terminal('a', 0, 5, 1, 0),
        terminal('a', 10, 5, -1, 0),
        terminal('b', 5, 0, 0, 1),
        terminal('b', 5, 10, 0, -1),
      ],
    );
    expect(unrouted).toEqual([]);
    expect(new Set(wires.map((w) => w.net))).toEqual(new Set(['a', 'b']));
    expect(crossings).toBe(1);
  });

  it('puts a dot where three wires of a net meet, and nowhere else', () => {
    const { dots } = routeNets(
      [],
      [terminal('a', 0, 0, 1, 0), terminal('a', 20, 0, -1, 0), terminal('a', 10, 8, 0, -1)],
    );
    expect(dots).toHaveLength(1);
    expect(dots[0]).toMatchObject({ net: 'a', y: 0 });
  });

  it('names what it cannot reach: a pin that is walled in', () => {
    const walls = [box(8, -3, 16, -3), box(8, 3, 16, 3), box(8, -3, 8, 3), box(16, -3, 16, 3)];
    const { unrouted } = routeNets(walls, [terminal('a', 0, 0, 1, 0), terminal('a', 12, 0, -1, 0)]);
    expect(unrouted.map((t) => t.net)).toEqual(['a']);
  });
});

describe('room on the sheet', () => {
  it('is free until it is taken, as often as it was taken, and outside the sheet never', () => {
    const unit = fc.integer({ min: -10, max: 10 });
    fc.assert(
      fc.property(
        unit,
        unit,
        fc.integer({ min: 0, max: 4 }),
        fc.integer({ min: 0, max: 4 }),
        (x, y, w, h) => {
          const sheet = new Occupancy();
          const some = box(x, y, x + w, y + h);
          expect(sheet.isFree(some, 0)).toBe(true);
          sheet.take(some);
          sheet.take(some);
          expect(sheet.isFree(some, 0)).toBe(false);
          expect(sheet.isFree(box(x + w + 1, y, x + w + 1, y), 0)).toBe(true);
          expect(sheet.isFree(box(x + w + 1, y, x + w + 1, y), 1)).toBe(false);
          sheet.release(some);
          expect(sheet.isFree(some, 0)).toBe(false);
          sheet.release(some);
          expect(sheet.isFree(some, 0)).toBe(true);
        },
      ),
    );
  });
});
