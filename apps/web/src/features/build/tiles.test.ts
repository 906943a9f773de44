import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { inTiles, SHEET_MM, type Box, type Point } from './tiles.ts';

const boxes = fc.record({
  x: fc.double({ min: -50, max: 50, noNaN: true }),
  y: fc.double({ min: -50, max: 50, noNaN: true }),
  width: fc.double({ min: 1, max: 900, noNaN: true }),
  height: fc.double({ min: 1, max: 900, noNaN: true }),
});
const scales = fc.double({ min: 0.1, max: 3, noNaN: true });
const isIn = (p: Point, b: Box) =>
  p.x >= b.x - 1e-9 && p.x <= b.x + b.width + 1e-9 && p.y >= b.y - 1e-9 && p.y <= b.y + b.height + 1e-9;

describe('a drawing in tiles', () => {
  it('is one sheet where paper holds it', () => {
    const box = { x: 0, y: 0, width: SHEET_MM.width, height: SHEET_MM.height };
    expect(inTiles(box, 1)).toEqual([{ name: 'A1', row: 0, column: 0, box, joins: [] }]);
    expect(inTiles({ ...box, width: SHEET_MM.width + 1 }, 1).map((t) => t.name)).toEqual(['A1', 'A2']);
  });

  it('is held by A4 and letter with margins of 10 mm, whatever its size and scale', () => {
    fc.assert(
      fc.property(boxes, scales, (box, mm) => {
        for (const tile of inTiles(box, mm)) {
          expect(tile.box.width * mm).toBeLessThanOrEqual(210 - 20);
          expect(tile.box.height * mm).toBeLessThanOrEqual(279 - 20);
        }
      }),
    );
  });

  it('has every point on some sheet, and what lies at a join on both', () => {
    const shares = fc.double({ min: 0, max: 1, noNaN: true });
    fc.assert(
      fc.property(boxes, scales, shares, shares, (box, mm, u, v) => {
        const tiles = inTiles(box, mm);
        const point = { x: box.x + u * box.width, y: box.y + v * box.height };
        expect(tiles.some((t) => isIn(point, t.box))).toBe(true);
        // Every named cross of a sheet is on its neighbours too, at the same place.
        const marks = tiles.flatMap((t) =>
          t.joins.flatMap(({ from, to, names }) => [
            { at: from, name: names[0], tile: t },
            { at: to, name: names[1], tile: t },
          ]),
        );
        for (const mark of marks) {
          const same = marks.filter((m) => m.name === mark.name);
          expect(new Set(same.map((m) => m.tile.name)).size).toBeGreaterThan(1);
          for (const other of same) {
            expect(other.at).toEqual(mark.at);
            expect(isIn(other.at, other.tile.box)).toBe(true);
          }
        }
      }),
    );
  });
});
