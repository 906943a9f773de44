import type { PhotoLink, PhotoOverlay } from '@zemble/contract';

/** Quarter turns that leave everything as it was. */
export const WHOLE_TURN = 4;

interface Place {
  readonly x: number;
  readonly y: number;
}

/** Where a point is after quarter turns clockwise. */
export function turnedPoint<P extends Place>(point: P, quarters: number): P {
  let { x, y } = point;
  for (let i = 0; i < quarters; i += 1) [x, y] = [1 - y, x];
  return { ...point, x, y };
}

/** What is drawn over a picture after quarter turns clockwise. */
export function turnedOverlay(overlay: PhotoOverlay, quarters: number): PhotoOverlay {
  const { link, tracks } = overlay;
  return {
    ...overlay,
    ...(link ? { link: { ...link, here: turnedPair(link.here, quarters) } } : {}),
    ...(tracks
      ? { tracks: tracks.map(({ places }) => ({ places: places.map((p) => turnedPoint(p, quarters)) })) }
      : {}),
  };
}

export const turnedPair = ([a, b]: PhotoLink['here'], quarters: number): PhotoLink['here'] => [
  turnedPoint(a, quarters),
  turnedPoint(b, quarters),
];
