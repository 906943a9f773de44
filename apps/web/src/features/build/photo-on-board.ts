import type { Board, BoardMark, Hole, PhotoResource } from '@zemble/contract';
import { similarity } from '@zemble/core';
import type { BoardFrame, BoardSide } from './board-geometry.ts';

type Pair<T> = readonly [T, T];

/** The pins of a body in their holes. */
interface Holed {
  readonly pins: readonly { readonly ref: string; readonly pin: string; readonly hole: Hole }[];
}

/** The two that lie farthest apart; undefined where there are not two. */
function farthest<T>(all: readonly T[], apart: (a: T, b: T) => number): Pair<T> | undefined {
  const pairs = all.flatMap((a, i) => all.slice(i + 1).map((b): Pair<T> => [a, b]));
  const [first, ...rest] = pairs;
  return first && rest.reduce((best, pair) => (apart(...pair) > apart(...best) ? pair : best), first);
}

const holesApart = (a: Hole, b: Hole): number => Math.hypot(a[0] - b[0], a[1] - b[1]);

/** A pin in a hole, or a corner of the board, that can be found on a photo. */
export interface Landmark {
  readonly hole: Hole;
  /** The pin that is in it, "R1.a". */
  readonly pin?: string | undefined;
}

/** Two holes by which a photo can be laid: pins that lie far apart, or two corners of a board that is bare. */
export function landmarks(
  { columns, rows }: Pick<Board, 'columns' | 'rows'>,
  bodies: readonly Holed[],
): Pair<Landmark> {
  const pins = bodies.flatMap((b) =>
    b.pins.map(({ ref, pin, hole }): Landmark => ({ hole, pin: `${ref}.${pin}` })),
  );
  return (
    farthest(pins, (a, b) => holesApart(a.hole, b.hole)) ?? [
      { hole: [0, 0] },
      { hole: [columns - 1, rows - 1] },
    ]
  );
}

/** Two holes of a board and where they are on a photo: as it was laid by hand, or two pads that are marked on it. */
export function marksOn(
  photo: Pick<PhotoResource, 'id' | 'points'>,
  board: Pick<Board, 'photo'>,
  bodies: readonly Holed[],
): Pair<BoardMark> | undefined {
  if (board.photo?.photoId === photo.id) return board.photo.marks;
  const holes = new Map<string, Hole>(
    bodies.flatMap((b) => b.pins.map((p) => [`${p.ref}.${p.pin}`, p.hole] as const)),
  );
  const pads = photo.points.flatMap(({ target, x, y }): BoardMark[] => {
    const hole = holes.get(target);
    return hole ? [{ hole, at: { x, y } }] : [];
  });
  return farthest(pads, (a, b) => holesApart(a.hole, b.hole));
}

/**
 * The transform that lays a photo, drawn at its size in pixels, under a layout.
 *
 * @returns text for the attribute; undefined where the two holes, or their places, are one
 */
export function photoTransform(
  { width, height, overlay }: Pick<PhotoResource, 'width' | 'height' | 'overlay'>,
  marks: Pair<BoardMark>,
  frame: BoardFrame,
  side: BoardSide,
): string | undefined {
  const pixels = marks.map(({ at }) => ({ x: at.x * width, y: at.y * height }));
  const places = marks.map(({ hole }) => frame.at(hole));
  const isMirrored = (overlay.side === 'solder') !== (side === 'copper');
  const onto = similarity([pixels[0]!, pixels[1]!], [places[0]!, places[1]!], isMirrored);
  if (!onto) return undefined;
  const [o, x, y] = [onto({ x: 0, y: 0 }), onto({ x: 1, y: 0 }), onto({ x: 0, y: 1 })];
  return `matrix(${x.x - o.x} ${x.y - o.y} ${y.x - o.x} ${y.y - o.y} ${o.x} ${o.y})`;
}
