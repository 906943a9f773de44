import type { Part } from '../../circuit/circuit/index.ts';
import type { NetClass } from '../../circuit/figures/index.ts';
import { footprint } from './footprint.ts';
import { Occupancy } from './occupancy.ts';
import { pinsAt, type Box, type Placement, type SymbolPin } from './symbols.ts';

/** Free units between two symbols: room for two wires. */
export const MARGIN = 2;
/** Rings around a wished place in which room is looked for. */
const RINGS = 120;

interface Template {
  readonly boxes: readonly Box[];
  readonly pins: readonly SymbolPin[];
}

/** Which symbol stands where, and where there is room for another: no two footprints touch. */
export class SymbolSheet {
  private readonly places = new Map<string, Placement>();
  private readonly occupancy = new Occupancy();
  private readonly classOf: (net: string) => NetClass;
  private readonly textsOf: (part: Part) => readonly [string, string];
  private extent: Box = { left: 0, right: 0, top: 0, bottom: 0 };
  /** Boxes and pins of a symbol standing at the origin, by how it is turned. */
  private readonly templates = new Map<string, Template>();

  constructor(classOf: (net: string) => NetClass, textsOf: (part: Part) => readonly [string, string]) {
    this.classOf = classOf;
    this.textsOf = textsOf;
  }

  /** Where a symbol stands; undefined for one that does not. */
  readonly at = (ref: string): Placement | undefined => this.places.get(ref);

  get size(): number {
    return this.places.size;
  }

  /** The paper used so far. */
  get bounds(): Box {
    return this.extent;
  }

  private templateOf(part: Part, at: Placement): Template {
    const key = `${part.ref} ${at.turn} ${at.isFlipped}`;
    const known = this.templates.get(key);
    if (known) return known;
    const origin: Placement = { ...at, x: 0, y: 0 };
    const boxes = footprint(part, origin, this.textsOf(part), this.classOf).boxes.map((b) => ({
      left: Math.floor(b.left),
      top: Math.floor(b.top),
      right: Math.ceil(b.right),
      bottom: Math.ceil(b.bottom),
    }));
    const template = { boxes, pins: pinsAt(part, origin) };
    this.templates.set(key, template);
    return template;
  }

  boxesOf(part: Part, at: Placement): Box[] {
    return this.templateOf(part, at).boxes.map((b) => ({
      left: b.left + at.x,
      right: b.right + at.x,
      top: b.top + at.y,
      bottom: b.bottom + at.y,
    }));
  }

  /** Free of others, and no symbol stands on the first steps of a wire from a pin. */
  isFree(part: Part, at: Placement): boolean {
    const { boxes, pins } = this.templateOf(part, at);
    for (const box of boxes) if (!this.occupancy.isFree(box, MARGIN, at.x, at.y)) return false;
    return pins.every((p) => !this.occupancy.isTaken(at.x + p.x + 2 * p.dx, at.y + p.y + 2 * p.dy));
  }

  /** Whether a piece of paper and the margin around it are free. */
  isBare(box: Box): boolean {
    return this.occupancy.isFree(box, MARGIN);
  }

  /** Keeps a piece of paper free of symbols. */
  keep(box: Box): void {
    this.occupancy.take(box);
  }

  put(part: Part, at: Placement): void {
    this.places.set(part.ref, at);
    for (const box of this.boxesOf(part, at)) {
      this.occupancy.take(box);
      this.extent = {
        left: Math.min(this.extent.left, box.left),
        right: Math.max(this.extent.right, box.right),
        top: Math.min(this.extent.top, box.top),
        bottom: Math.max(this.extent.bottom, box.bottom),
      };
    }
  }

  /** Takes a symbol off the sheet again; undefined for one that does not stand on it. */
  lift(part: Part): Placement | undefined {
    const at = this.places.get(part.ref);
    if (!at) return undefined;
    for (const box of this.boxesOf(part, at)) this.occupancy.release(box);
    this.places.delete(part.ref);
    return at;
  }

  /** The free place nearest to a wished one, in growing rings; undefined where there is none near it. */
  nearestFree(part: Part, wish: Placement): Placement | undefined {
    for (let ring = 0; ring < RINGS; ring += 1)
      for (let dx = -ring; dx <= ring; dx += 1) {
        const dy = ring - Math.abs(dx);
        for (const y of dy > 0 ? [wish.y + dy, wish.y - dy] : [wish.y]) {
          const at = { ...wish, x: wish.x + dx, y };
          if (this.isFree(part, at)) return at;
        }
      }
    return undefined;
  }
}
