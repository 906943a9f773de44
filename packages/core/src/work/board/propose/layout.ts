import type { BoardStyle } from '@zemble/contract';
import type { Clashes, Shape } from './clashes.ts';
import type { Item } from './items.ts';

/** Where an item is: its shape, and the hole of its first pin. */
export interface Spot {
  readonly shape: Shape;
  readonly column: number;
  readonly row: number;
}

/** What the search weighs, in holes of board. */
export const LINK_COST = 3;
const NEAR_COST = 0.25;
/** No net is in a hole. */
export const EMPTY = -1;

/** Items on a grid that is wide enough for a board of the asked size to grow in any direction. */
export class Layout {
  readonly width: number;
  readonly height: number;
  readonly spots: (Spot | null)[];
  /** Net of the pin in each hole. */
  readonly grid: Int16Array;
  /** How many bodies and leads lie over each hole. */
  readonly covers: Uint8Array;
  private readonly most: readonly [columns: number, rows: number];
  private readonly items: readonly Item[];
  private readonly clashes: Clashes;
  private readonly style: BoardStyle;
  /** Holes of the pins of each net. */
  private readonly pins: (readonly [number, number])[][];
  left = 0;
  right = -1;
  top = 0;
  bottom = -1;

  constructor(
    items: readonly Item[],
    clashes: Clashes,
    style: BoardStyle,
    most: readonly [columns: number, rows: number],
  ) {
    this.items = items;
    this.clashes = clashes;
    this.style = style;
    this.most = most;
    this.width = 2 * most[0] + 1;
    this.height = 2 * most[1] + 1;
    this.grid = new Int16Array(this.width * this.height).fill(EMPTY);
    this.covers = new Uint8Array(this.width * this.height);
    this.spots = items.map(() => null);
    this.pins = Array.from({ length: 1 + Math.max(0, ...items.flatMap((i) => i.nets)) }, () => []);
  }

  isEmpty(): boolean {
    return this.right < this.left;
  }

  put(index: number, spot: Spot): void {
    this.spots[index] = spot;
    const { shape, column, row } = spot;
    const { nets } = this.items[index]!;
    for (let k = 0; k < nets.length; k += 1) {
      const [c, r] = [column + shape.columns[k]!, row + shape.rows[k]!];
      this.grid[r * this.width + c] = nets[k]!;
      this.pins[nets[k]!]!.push([c, r]);
    }
    for (const [c, r] of shape.covered) this.cover(column + c, row + r, 1);
    if (this.isEmpty()) {
      this.left = column + shape.left;
      this.right = column + shape.right;
      this.top = row + shape.top;
      this.bottom = row + shape.bottom;
    } else {
      this.left = Math.min(this.left, column + shape.left);
      this.right = Math.max(this.right, column + shape.right);
      this.top = Math.min(this.top, row + shape.top);
      this.bottom = Math.max(this.bottom, row + shape.bottom);
    }
  }

  take(index: number): void {
    const spot = this.spots[index];
    if (!spot) return;
    const { shape, column, row } = spot;
    const { nets } = this.items[index]!;
    for (let k = 0; k < nets.length; k += 1) {
      const [c, r] = [column + shape.columns[k]!, row + shape.rows[k]!];
      this.grid[r * this.width + c] = EMPTY;
      const own = this.pins[nets[k]!]!;
      own.splice(
        own.findIndex(([x, y]) => x === c && y === r),
        1,
      );
    }
    for (const [c, r] of shape.covered) this.cover(column + c, row + r, -1);
    this.spots[index] = null;
    this.measure();
  }

  private cover(column: number, row: number, by: number): void {
    if (column < 0 || row < 0 || column >= this.width || row >= this.height) return;
    this.covers[row * this.width + column]! += by;
  }

  private measure(): void {
    let [left, right, top, bottom] = [Infinity, -1, Infinity, -1];
    for (const spot of this.spots) {
      if (!spot) continue;
      left = Math.min(left, spot.column + spot.shape.left);
      right = Math.max(right, spot.column + spot.shape.right);
      top = Math.min(top, spot.row + spot.shape.top);
      bottom = Math.max(bottom, spot.row + spot.shape.bottom);
    }
    if (right < 0) [left, right, top, bottom] = [0, -1, 0, -1];
    [this.left, this.right, this.top, this.bottom] = [left, right, top, bottom];
  }

  /** Whether the net of a pin is on the board already. */
  hasNet(net: number): boolean {
    return this.pins[net]!.length > 0;
  }

  /** Rows where a net has pins. */
  rowsOf(net: number): number[] {
    return [...new Set(this.pins[net]!.map(([, row]) => row))];
  }

  /** Holes of the pins of a net. */
  pinsOf(net: number): readonly (readonly [number, number])[] {
    return this.pins[net]!;
  }

  /** What putting an item there costs, in holes of board; Infinity where it cannot be. */
  cost(index: number, { shape, column, row }: Spot, best: number): number {
    const { nets } = this.items[index]!;
    const left = this.isEmpty() ? column + shape.left : Math.min(this.left, column + shape.left);
    const right = Math.max(this.right, column + shape.right);
    const top = this.isEmpty() ? row + shape.top : Math.min(this.top, row + shape.top);
    const bottom = Math.max(this.bottom, row + shape.bottom);
    const [columns, rows] = [right - left + 1, bottom - top + 1];
    if (columns > this.most[0] || rows > this.most[1]) return Infinity;
    let cost = columns * rows;
    if (cost >= best) return Infinity;
    for (let k = 0; k < nets.length; k += 1) {
      const at = (row + shape.rows[k]!) * this.width + column + shape.columns[k]!;
      if (this.grid[at] !== EMPTY) return Infinity;
    }
    cost +=
      this.style === 'strip'
        ? this.stripCost(nets, shape, column, row)
        : this.padCost(nets, shape, column, row);
    if (cost >= best) return Infinity;
    for (const other of this.spots) {
      if (!other) continue;
      if (this.clashes.clash(other.shape.index, shape.index, column - other.column, row - other.row))
        return Infinity;
    }
    return cost;
  }

  /** Runs that the pins of an item would add to the strips, each to be linked; Infinity where there is no room for a cut. */
  private stripCost(nets: readonly number[], shape: Shape, column: number, row: number): number {
    let cost = 0;
    for (let k = 0; k < nets.length; k += 1) {
      const [net, c, r] = [nets[k]!, column + shape.columns[k]!, row + shape.rows[k]!];
      const start = r * this.width;
      let before = c - 1;
      while (before >= this.left && this.grid[start + before] === EMPTY) before -= 1;
      let after = c + 1;
      while (after <= this.right && this.grid[start + after] === EMPTY) after += 1;
      let a = before >= this.left ? this.grid[start + before]! : EMPTY;
      let b = after <= this.right ? this.grid[start + after]! : EMPTY;
      if (a !== EMPTY && a !== net && c - before < 2) return Infinity;
      if (b !== EMPTY && b !== net && after - c < 2) return Infinity;
      // Its own pins in the same row.
      for (let j = 0; j < nets.length; j += 1) {
        if (j === k || row + shape.rows[j]! !== r) continue;
        const other = column + shape.columns[j]!;
        if (nets[j] !== net && Math.abs(other - c) < 2) return Infinity;
        if (other < c && other > before) [before, a] = [other, nets[j]!];
        if (other > c && other < after) [after, b] = [other, nets[j]!];
      }
      if (a === net || b === net) continue;
      if (this.hasNet(net) || nets.indexOf(net) < k) cost += LINK_COST;
      if (a !== EMPTY && a === b) cost += LINK_COST;
    }
    return cost;
  }

  private padCost(nets: readonly number[], shape: Shape, column: number, row: number): number {
    let cost = 0;
    for (let k = 0; k < nets.length; k += 1) {
      if (!this.hasNet(nets[k]!)) continue;
      const [c, r] = [column + shape.columns[k]!, row + shape.rows[k]!];
      let near = Infinity;
      for (const [x, y] of this.pins[nets[k]!]!) near = Math.min(near, Math.abs(x - c) + Math.abs(y - r));
      cost += NEAR_COST * (near - 1);
    }
    return cost;
  }
}
