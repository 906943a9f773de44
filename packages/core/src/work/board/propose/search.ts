import type { BoardStyle } from '@zemble/contract';
import type { Random } from '../../../base/numeric/index.ts';
import { Clashes, type Shape } from './clashes.ts';
import { finish, type Finished } from './finish.ts';
import type { Item } from './items.ts';
import { Layout, type Spot } from './layout.ts';

/** The best board that a search has found. */
export interface FoundBoard {
  readonly spots: readonly Spot[];
  readonly finished: Finished;
}

/** How far a search goes. */
export interface Effort {
  /** Beginnings from nothing, of which the best is gone on with. */
  readonly starts: number;
  /** Rounds in which some parts are taken out and put in again. */
  readonly rounds: number;
  /** Asked before each step; false ends the search with the best so far. */
  readonly mayGoOn?: (() => boolean) | undefined;
  /** Told how much of the search is done, 0 to 1. */
  readonly onProgress?: ((share: number) => void) | undefined;
}

/** Pads are tried this near to those of the same net, holes. */
const BESIDE = 1;
/** A worse layout is gone on with at first when it is worse by this share of its cost. */
const HEAT = 0.06;
const HOTTEST = 500;
/** Rounds more for a board that has no room for all its links yet. */
const MOST_MORE = 1500;

/**
 * Searches for a small board: parts are put in one by one where they cost least, and then again and again some of them are
 * taken out and put in anew; worse layouts are gone on with now and then, less and less (ruin and recreate).
 */
export function searchBoard(
  items: readonly Item[],
  style: BoardStyle,
  leaving: readonly number[],
  most: readonly [columns: number, rows: number],
  random: Random,
  { starts, rounds, mayGoOn = () => true, onProgress = () => undefined }: Effort,
): FoundBoard | null {
  const clashes = new Clashes(items);
  const search = new Search(items, clashes, style, leaving, most, random);
  const steps = starts + rounds;
  let best: Attempt | null = null;
  for (let i = 0; i < starts && (mayGoOn() || !best); i += 1) {
    const attempt = search.fromNothing();
    if (attempt && (!best || attempt.cost < best.cost)) best = attempt;
    onProgress(i / steps);
  }
  if (!best) return null;
  let now = best;
  const isOpen = (i: number) => i < rounds || (best!.finished.missing > 0 && i < rounds + MOST_MORE);
  for (let i = 0; isOpen(i) && mayGoOn(); i += 1) {
    const share = Math.min(1, i / rounds);
    const heat = HEAT * Math.min(now.cost, HOTTEST) * (1 - share) ** 2;
    const attempt = search.again(now, share);
    if (attempt && attempt.cost < now.cost - heat * Math.log(1 - random())) now = attempt;
    if (now.cost < best.cost) best = now;
    if (i % 20 === 0) onProgress(Math.min(1, (starts + i) / steps));
  }
  const { finished, spots } = best;
  return finished.missing === 0 ? { finished, spots } : null;
}

interface Attempt {
  readonly spots: readonly Spot[];
  readonly finished: Finished;
  readonly cost: number;
}

class Search {
  private readonly items: readonly Item[];
  private readonly clashes: Clashes;
  private readonly style: BoardStyle;
  private readonly leaving: readonly number[];
  private readonly most: readonly [number, number];
  private readonly random: Random;
  /** Items that share a net with each. */
  private readonly neighbours: readonly (readonly number[])[];

  constructor(
    items: readonly Item[],
    clashes: Clashes,
    style: BoardStyle,
    leaving: readonly number[],
    most: readonly [number, number],
    random: Random,
  ) {
    this.items = items;
    this.clashes = clashes;
    this.style = style;
    this.leaving = leaving;
    this.most = most;
    this.random = random;
    this.neighbours = items.map((item, i) =>
      items.flatMap((other, j) => (i !== j && item.nets.some((net) => other.nets.includes(net)) ? [j] : [])),
    );
  }

  fromNothing(): Attempt | null {
    const layout = this.blank();
    const order = this.items.map((_, i) => i);
    return this.fill(layout, order, 0);
  }

  /** Takes some items out of a layout, near one another or at its edges, and puts them in again. */
  again(now: Attempt, share: number): Attempt | null {
    const layout = this.blank();
    now.spots.forEach((spot, i) => layout.put(i, spot));
    const count = 1 + Math.floor(this.random() * Math.min(this.items.length, share < 0.5 ? 5 : 4));
    const out = this.random() < 0.3 ? this.atEdge(layout, count) : this.nearby(count);
    for (const i of out) layout.take(i);
    return this.fill(layout, out, 0.5 * (1 - share));
  }

  private blank(): Layout {
    return new Layout(this.items, this.clashes, this.style, this.most);
  }

  private nearby(count: number): number[] {
    const first = Math.floor(this.random() * this.items.length);
    const out = [first];
    while (out.length < count) {
      const from = this.neighbours[out[Math.floor(this.random() * out.length)]!]!;
      const next =
        from.length > 0 && this.random() < 0.8
          ? from[Math.floor(this.random() * from.length)]!
          : Math.floor(this.random() * this.items.length);
      if (!out.includes(next)) out.push(next);
      else if (this.random() < 0.2) break;
    }
    return out;
  }

  /** Items that a board without its first or last row or column would not have. */
  private atEdge(layout: Layout, count: number): number[] {
    const side = Math.floor(this.random() * 4);
    const at = layout.spots.flatMap((spot, i) => {
      if (!spot) return [];
      const { shape, column, row } = spot;
      const isAt = [
        column + shape.left === layout.left,
        column + shape.right === layout.right,
        row + shape.top === layout.top,
        row + shape.bottom === layout.bottom,
      ][side];
      return isAt === true ? [i] : [];
    });
    return at.length <= count + 2 ? at : at.slice(0, count);
  }

  private fill(layout: Layout, out: readonly number[], noise: number): Attempt | null {
    const open = [...out];
    while (open.length > 0) {
      const next = this.nextOf(layout, open);
      open.splice(open.indexOf(next), 1);
      const spot = this.bestSpot(layout, next, noise);
      if (!spot) return null;
      layout.put(next, spot);
    }
    const finished = finish(layout, this.style, this.leaving, this.most);
    const spots = layout.spots.map((s) => s!);
    return { spots, finished, cost: finished.cost };
  }

  /** The item to be put in next: one with many pins whose nets are on the board, now and then any. */
  private nextOf(layout: Layout, open: readonly number[]): number {
    if (open.length === 1 || this.random() < 0.15) return open[Math.floor(this.random() * open.length)]!;
    let best = open[0]!;
    let most = -1;
    for (const i of open) {
      const { nets } = this.items[i]!;
      const known = nets.filter((net) => layout.hasNet(net)).length;
      const rank = known * 2 + nets.length + this.random() * 2;
      if (rank > most) [most, best] = [rank, i];
    }
    return best;
  }

  private bestSpot(layout: Layout, index: number, noise: number): Spot | null {
    const shapes = this.clashes.shapes[index]!;
    if (layout.isEmpty()) {
      const fitting = shapes
        .map((shape): Spot => ({ shape, column: this.most[0], row: this.most[1] }))
        .filter((spot) => layout.cost(index, spot, Infinity) < Infinity);
      return fitting[Math.floor(this.random() * fitting.length)] ?? null;
    }
    const near = this.tried(layout, index, this.candidates(layout, index, shapes), noise);
    return near ?? this.tried(layout, index, this.anywhere(layout, shapes), noise);
  }

  private tried(layout: Layout, index: number, spots: Iterable<Spot>, noise: number): Spot | null {
    let best: Spot | null = null;
    let least = Infinity;
    for (const spot of spots) {
      const shift = noise === 0 ? 0 : this.random() * noise * 4;
      const cost = layout.cost(index, spot, least - shift) + shift + this.random() * 1e-3;
      if (cost < least) [least, best] = [cost, spot];
    }
    return best;
  }

  /** Spots where a pin comes to lie on a strip of its net, or beside a pad of it. */
  private *candidates(layout: Layout, index: number, shapes: readonly Shape[]): Generator<Spot> {
    const { nets } = this.items[index]!;
    for (let k = 0; k < nets.length; k += 1) {
      const net = nets[k]!;
      if (!layout.hasNet(net)) continue;
      if (this.style === 'strip') {
        for (const row of layout.rowsOf(net))
          for (const shape of shapes)
            for (let c = layout.left - 2; c <= layout.right + 2; c += 1) {
              const spot = { shape, column: c - shape.columns[k]!, row: row - shape.rows[k]! };
              if (this.isInside(layout, spot)) yield spot;
            }
      } else {
        for (const [x, y] of layout.pinsOf(net))
          for (const shape of shapes)
            for (let dx = -BESIDE; dx <= BESIDE; dx += 1)
              for (let dy = -BESIDE; dy <= BESIDE; dy += 1) {
                const spot = { shape, column: x + dx - shape.columns[k]!, row: y + dy - shape.rows[k]! };
                if (this.isInside(layout, spot)) yield spot;
              }
      }
    }
  }

  private *anywhere(layout: Layout, shapes: readonly Shape[]): Generator<Spot> {
    for (const shape of shapes)
      for (let column = layout.left - shape.right - 3; column <= layout.right - shape.left + 3; column += 1)
        for (let row = layout.top - shape.bottom - 3; row <= layout.bottom - shape.top + 3; row += 1) {
          const spot = { shape, column, row };
          if (this.isInside(layout, spot)) yield spot;
        }
  }

  private isInside({ width, height }: Layout, { shape, column, row }: Spot): boolean {
    return (
      column + shape.left >= 0 &&
      row + shape.top >= 0 &&
      column + shape.right < width &&
      row + shape.bottom < height
    );
  }
}
