import type { Box } from './symbols.ts';

/** Side of the squares that boxes are looked up by, drawing units: a few symbols. */
const SQUARE = 16;

const overlaps = (a: Box, b: Box) =>
  a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;

/** Boxes on paper, found by where they are: what overlaps a box is looked for near it only. */
export class BoxIndex {
  private readonly squares = new Map<string, Box[]>();

  constructor(boxes: Iterable<Box> = []) {
    for (const box of boxes) this.add(box);
  }

  add(box: Box): void {
    for (const key of keysOf(box)) {
      const there = this.squares.get(key);
      if (there) there.push(box);
      else this.squares.set(key, [box]);
    }
  }

  /** Does a box overlap none of those on the paper? Edges may touch. */
  isFree(box: Box): boolean {
    return keysOf(box).every((key) => !this.squares.get(key)?.some((other) => overlaps(box, other)));
  }
}

function keysOf({ left, right, top, bottom }: Box): string[] {
  const keys: string[] = [];
  for (let y = Math.floor(top / SQUARE); y <= Math.floor(bottom / SQUARE); y += 1)
    for (let x = Math.floor(left / SQUARE); x <= Math.floor(right / SQUARE); x += 1) keys.push(`${x} ${y}`);
  return keys;
}
