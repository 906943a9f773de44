import type { Board, Hole } from '@zemble/contract';
import { PITCH_MM, type Polygon } from '@zemble/core';

/** Holes of a drawing of a board are this far apart, in its own units. */
export const STEP = 20;
export const MARGIN = 26;

/** From which side a board is seen. */
export type BoardSide = 'parts' | 'copper';

/** Where things of a board are drawn, as it is seen from a side: from the copper's it is mirrored left to right. */
export interface BoardFrame {
  readonly width: number;
  readonly height: number;
  readonly at: (hole: Hole) => { readonly x: number; readonly y: number };
  readonly path: (polygon: Polygon) => string;
  /** The hole at a place of the drawing; it may lie beside the board. */
  readonly holeAt: (x: number, y: number) => Hole;
}

export function boardFrame({ columns, rows }: Pick<Board, 'columns' | 'rows'>, side: BoardSide): BoardFrame {
  const across = (columns - 1) * STEP;
  const x = (fromLeft: number) => MARGIN + (side === 'copper' ? across - fromLeft : fromLeft);
  return {
    width: across + 2 * MARGIN,
    height: (rows - 1) * STEP + 2 * MARGIN,
    at: ([c, r]) => ({ x: x(c * STEP), y: MARGIN + r * STEP }),
    path: (polygon) =>
      `M ${polygon.map((p) => `${x((p.x / PITCH_MM) * STEP).toFixed(1)} ${(MARGIN + (p.y / PITCH_MM) * STEP).toFixed(1)}`).join(' L ')} Z`,
    holeAt: (px, py) => {
      const fromLeft = side === 'copper' ? across - (px - MARGIN) : px - MARGIN;
      return [Math.round(fromLeft / STEP), Math.round((py - MARGIN) / STEP)];
    },
  };
}
