import type { Box } from './symbols.ts';

/** Units that a row of paper grows by at least. */
const LEAST_GROWTH = 64;

/** One row of the sheet: how often each unit from `left` on is taken. */
interface Row {
  left: number;
  cells: Uint8Array;
}

/** Which drawing units are taken, on a sheet that grows where something is put. */
export class Occupancy {
  private readonly rows = new Map<number, Row>();

  isTaken(x: number, y: number): boolean {
    const row = this.rows.get(y);
    if (!row) return false;
    const i = x - row.left;
    return i >= 0 && i < row.cells.length && row.cells[i] !== 0;
  }

  /** Is a box of whole units, moved by (dx, dy) and widened by a margin, free? */
  isFree(box: Box, margin: number, dx = 0, dy = 0): boolean {
    const bottom = box.bottom + dy + margin;
    for (let y = box.top + dy - margin; y <= bottom; y += 1) {
      const row = this.rows.get(y);
      if (!row) continue;
      const first = Math.max(0, box.left + dx - margin - row.left);
      const last = Math.min(row.cells.length - 1, box.right + dx + margin - row.left);
      for (let i = first; i <= last; i += 1) if (row.cells[i] !== 0) return false;
    }
    return true;
  }

  take(box: Box, by = 1): void {
    const [left, right] = [Math.floor(box.left), Math.ceil(box.right)];
    for (let y = Math.floor(box.top); y <= Math.ceil(box.bottom); y += 1) {
      const { left: start, cells } = this.rowFor(y, left, right);
      for (let x = left; x <= right; x += 1) cells[x - start] = cells[x - start]! + by;
    }
  }

  release(box: Box): void {
    this.take(box, -1);
  }

  /** The row at y, with room from left to right. */
  private rowFor(y: number, left: number, right: number): Row {
    const row = this.rows.get(y);
    if (!row) {
      const made = { left, cells: new Uint8Array(Math.max(LEAST_GROWTH, right - left + 1)) };
      this.rows.set(y, made);
      return made;
    }
    const end = row.left + row.cells.length - 1;
    if (left >= row.left && right <= end) return row;
    // Twice as wide: a row that grows unit by unit is copied a few times only.
    const growth = Math.max(LEAST_GROWTH, row.cells.length);
    const newLeft = left < row.left ? Math.min(left, row.left - growth) : row.left;
    const newEnd = right > end ? Math.max(right, end + growth) : end;
    const cells = new Uint8Array(newEnd - newLeft + 1);
    cells.set(row.cells, row.left - newLeft);
    row.left = newLeft;
    row.cells = cells;
    return row;
  }
}
