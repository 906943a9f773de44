import type { Box } from './symbols.ts';

/** Which drawing units are taken, on a sheet that grows in no direction: large enough for every circuit it is given. */
export class Occupancy {
  readonly width: number;
  readonly height: number;
  readonly originX: number;
  readonly originY: number;
  readonly taken: Uint8Array;

  constructor(width: number, height: number) {
    this.width = width;
    this.height = height;
    this.originX = Math.floor(width / 4);
    this.originY = Math.floor(height / 2);
    this.taken = new Uint8Array(width * height);
  }

  /** Index of a point, or -1 outside the sheet. */
  index(x: number, y: number): number {
    const column = x + this.originX;
    const row = y + this.originY;
    return column < 0 || row < 0 || column >= this.width || row >= this.height
      ? -1
      : row * this.width + column;
  }

  /** Is a box of whole units, moved by (dx, dy) and widened by a margin, free? */
  isFree(box: Box, margin: number, dx = 0, dy = 0): boolean {
    const left = box.left + dx - margin + this.originX;
    const right = box.right + dx + margin + this.originX;
    const top = box.top + dy - margin + this.originY;
    const bottom = box.bottom + dy + margin + this.originY;
    if (left < 0 || top < 0 || right >= this.width || bottom >= this.height) return false;
    for (let row = top; row <= bottom; row += 1) {
      const end = row * this.width + right;
      for (let i = row * this.width + left; i <= end; i += 1) if (this.taken[i] !== 0) return false;
    }
    return true;
  }

  take(box: Box, by = 1): void {
    for (let y = Math.floor(box.top); y <= Math.ceil(box.bottom); y += 1) {
      for (let x = Math.floor(box.left); x <= Math.ceil(box.right); x += 1) {
        const i = this.index(x, y);
        if (i >= 0) this.taken[i] = this.taken[i]! + by;
      }
    }
  }

  release(box: Box): void {
    this.take(box, -1);
  }
}
