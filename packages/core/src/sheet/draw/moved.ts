import type { Drawing } from './layout.ts';
import type { Point } from './symbols.ts';

/**
 * Where symbols are once one of them was moved by hand: those that are shown together with it go the same way.
 *
 * @param to the new place of the one that was moved, in drawing units
 * @param together designators that move as one; the part alone where it is none of them
 */
export function movedPlaces(
  { symbols }: Pick<Drawing, 'symbols'>,
  ref: string,
  to: Point,
  together: ReadonlySet<string>,
): Readonly<Record<string, Point>> {
  const own = symbols.find((s) => s.part.ref === ref)?.at;
  if (!own || !together.has(ref)) return { [ref]: to };
  const [dx, dy] = [to.x - own.x, to.y - own.y];
  return Object.fromEntries(
    symbols
      .filter((s) => together.has(s.part.ref))
      .map(({ part, at }) => [part.ref, { x: at.x + dx, y: at.y + dy }]),
  );
}
