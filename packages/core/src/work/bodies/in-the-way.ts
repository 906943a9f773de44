import { depthOfOverlap, type Polygon } from './polygon.ts';

/** A part on its holes as others meet it: its body, its bare leads above the board, its pins. */
export interface Standing {
  readonly body: Polygon;
  readonly leads: readonly Polygon[];
  readonly pins: readonly Polygon[];
}

/** Outlines that touch by less than this do not meet, mm. */
const TOUCHING_MM = 0.3;

const meet = (a: readonly Polygon[], b: readonly Polygon[], touchingMm: number): boolean =>
  a.some((p) => b.some((q) => depthOfOverlap(p, q) > touchingMm));

/** Whether two bodies are where the other is. */
export const bodiesMeet = (a: Standing, b: Standing): boolean => meet([a.body], [b.body], TOUCHING_MM);

/**
 * Whether the body, a lead or a pin of one part is where the body or a bare lead of another is.
 *
 * @param touchingMm what reaches into one another by no more than this only touches
 */
export const areInTheWay = (a: Standing, b: Standing, touchingMm = TOUCHING_MM): boolean =>
  meet([a.body, ...a.leads], [b.body, ...b.leads, ...b.pins], touchingMm) ||
  meet(a.pins, [b.body, ...b.leads], touchingMm);

/** The upright box that all of a part lies in, mm. */
export interface BoxMm {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
}

export function boxOf({ body, leads, pins }: Standing): BoxMm {
  const points = [body, ...leads, ...pins].flat();
  return {
    left: Math.min(...points.map((p) => p.x)),
    right: Math.max(...points.map((p) => p.x)),
    top: Math.min(...points.map((p) => p.y)),
    bottom: Math.max(...points.map((p) => p.y)),
  };
}

/** Whether two boxes share a place, the second moved by a distance. */
export const boxesMeet = (a: BoxMm, b: BoxMm, dx = 0, dy = 0): boolean =>
  a.right > b.left + dx && b.right + dx > a.left && a.bottom > b.top + dy && b.bottom + dy > a.top;
