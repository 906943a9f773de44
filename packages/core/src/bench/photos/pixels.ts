/** A place on a photo in pixels of it: x to the right, y down. */
export interface Pixel {
  readonly x: number;
  readonly y: number;
}

/** A place in fractions of a picture's width and height. */
export interface PhotoPlace {
  readonly x: number;
  readonly y: number;
}

interface Sized {
  readonly width: number;
  readonly height: number;
}

export const inPixels = ({ width, height }: Sized, { x, y }: PhotoPlace): Pixel => ({
  x: x * width,
  y: y * height,
});
export const inFractions = ({ width, height }: Sized, { x, y }: Pixel): PhotoPlace => ({
  x: x / width,
  y: y / height,
});

export const distance = (a: Pixel, b: Pixel): number => Math.hypot(a.x - b.x, a.y - b.y);

/**
 * The similarity that takes two places to two others: turned, scaled and moved, and mirrored where the two pictures are of the two
 * sides of a board. With complex numbers w = m z + t, or w = m z* + t where it is mirrored; two pairs give m and t (textbook).
 *
 * @param from two different places
 * @param to where they are in the other picture
 * @returns undefined where the places are one, so that neither turn nor scale is known
 */
export function similarity(
  from: readonly [Pixel, Pixel],
  to: readonly [Pixel, Pixel],
  isMirrored: boolean,
): ((spot: Pixel) => Pixel) | undefined {
  const flip = isMirrored ? -1 : 1;
  const [dx, dy] = [from[1].x - from[0].x, flip * (from[1].y - from[0].y)];
  const [ex, ey] = [to[1].x - to[0].x, to[1].y - to[0].y];
  const square = dx * dx + dy * dy;
  if (square === 0 || (ex === 0 && ey === 0)) return undefined;
  // m = e / d
  const [mx, my] = [(ex * dx + ey * dy) / square, (ey * dx - ex * dy) / square];
  return ({ x, y }) => {
    const [zx, zy] = [x - from[0].x, flip * (y - from[0].y)];
    return { x: to[0].x + mx * zx - my * zy, y: to[0].y + mx * zy + my * zx };
  };
}
