/** A point in millimetres. */
export interface PointMm {
  readonly x: number;
  readonly y: number;
}

/** A convex outline, its corners in order. */
export type Polygon = readonly PointMm[];

/** A rectangle by its middle, the direction that it lies along, and its size. */
export function rectangle(middle: PointMm, along: PointMm, length: number, width: number): Polygon {
  const size = Math.hypot(along.x, along.y);
  const [ux, uy] = size === 0 ? [1, 0] : [along.x / size, along.y / size];
  const [lx, ly, wx, wy] = [(ux * length) / 2, (uy * length) / 2, (-uy * width) / 2, (ux * width) / 2];
  return [
    { x: middle.x - lx - wx, y: middle.y - ly - wy },
    { x: middle.x + lx - wx, y: middle.y + ly - wy },
    { x: middle.x + lx + wx, y: middle.y + ly + wy },
    { x: middle.x - lx + wx, y: middle.y - ly + wy },
  ];
}

const CIRCLE_CORNERS = 12;

/** A circle as a polygon that lies within it. */
export const circle = (middle: PointMm, diameter: number): Polygon =>
  Array.from({ length: CIRCLE_CORNERS }, (_, i) => {
    const angle = (2 * Math.PI * (i + 0.5)) / CIRCLE_CORNERS;
    return {
      x: middle.x + (Math.cos(angle) * diameter) / 2,
      y: middle.y + (Math.sin(angle) * diameter) / 2,
    };
  });

/** Directions across the edges of two outlines, one unit long. */
function* normalsOf(a: Polygon, b: Polygon): Generator<readonly [number, number]> {
  for (const polygon of [a, b])
    for (let i = 0; i < polygon.length; i += 1) {
      const [p, q] = [polygon[i]!, polygon[(i + 1) % polygon.length]!];
      const length = Math.hypot(q.x - p.x, q.y - p.y);
      if (length > 0) yield [(q.y - p.y) / length, (p.x - q.x) / length];
    }
}

/**
 * How far two convex outlines reach into one another, mm: the shortest way by which one must be moved for them to be apart
 * (separating axis theorem). Zero or less where they are apart.
 */
export function depthOfOverlap(a: Polygon, b: Polygon): number {
  let least = Infinity;
  for (const [nx, ny] of normalsOf(a, b)) {
    const depth = overlapAlong(a, b, nx, ny);
    if (depth <= 0) return depth;
    if (depth < least) least = depth;
  }
  return least;
}

/** How far apart two convex outlines are at the least, mm; zero or less where they meet. */
export function distanceApart(a: Polygon, b: Polygon): number {
  let most = -Infinity;
  for (const [nx, ny] of normalsOf(a, b)) most = Math.max(most, -overlapAlong(a, b, nx, ny));
  return most;
}

function overlapAlong(a: Polygon, b: Polygon, nx: number, ny: number): number {
  let [aLow, aHigh, bLow, bHigh] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const { x, y } of a) {
    const at = x * nx + y * ny;
    if (at < aLow) aLow = at;
    if (at > aHigh) aHigh = at;
  }
  for (const { x, y } of b) {
    const at = x * nx + y * ny;
    if (at < bLow) bLow = at;
    if (at > bHigh) bHigh = at;
  }
  return Math.min(aHigh - bLow, bHigh - aLow);
}
