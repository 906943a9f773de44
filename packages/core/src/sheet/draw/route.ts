import type { Box, Point } from './symbols.ts';

/** A pin that a wire leaves from. */
export interface Terminal extends Point {
  readonly dx: number;
  readonly dy: number;
  readonly net: string;
}

export interface Wire {
  readonly net: string;
  readonly from: Point;
  readonly to: Point;
}

export interface Routing {
  readonly wires: readonly Wire[];
  /** Where three or more wires of a net meet. */
  readonly dots: readonly (Point & { net: string })[];
  /** Pins that no wire could reach: they get a flag with the net's name. */
  readonly unrouted: readonly Terminal[];
  readonly crossings: number;
}

const STEP_COST = 1;
const TURN_COST = 4;
const CROSSING_COST = 9;
const BORDER = 8;
const BLOCKED = -1;

const RIGHT = 0;
const DOWN = 1;
const LEFT = 2;
const UP = 3;
const directionOf = (dx: number, dy: number) => (dx > 0 ? RIGHT : dx < 0 ? LEFT : dy > 0 ? DOWN : UP);

/**
 * Routes every net over the free units between symbols: shortest paths with few bends and few crossings (A*, each pin
 * to the nearest point of its net's tree). A wire may cross another one squarely, never run along it, never pass
 * through an obstacle.
 *
 * @param obstacles boxes no wire may touch
 * @param terminals pins; each stands on the edge of an obstacle and looks outward
 */
export function routeNets(obstacles: readonly Box[], terminals: readonly Terminal[]): Routing {
  const nets = new Map<string, Terminal[]>();
  for (const t of terminals) nets.set(t.net, [...(nets.get(t.net) ?? []), t]);
  const grid = new Grid(obstacles, terminals, [...nets.keys()]);
  const span = (list: readonly Terminal[]) => {
    const xs = list.map((t) => t.x);
    const ys = list.map((t) => t.y);
    return Math.max(...xs) - Math.min(...xs) + Math.max(...ys) - Math.min(...ys);
  };
  const order = [...nets].filter(([, list]) => list.length > 1).sort((a, b) => span(a[1]) - span(b[1]));
  const unrouted = order.flatMap(([net, list]) => grid.connect(net, list));
  return { wires: grid.wires(), dots: grid.dots(), unrouted, crossings: grid.countCrossings() };
}

class Grid {
  private readonly left: number;
  private readonly top: number;
  private readonly width: number;
  private readonly height: number;
  /** Net that may use a unit: 0 anyone, BLOCKED nobody, else that net only. */
  private readonly owner: Int32Array;
  /** Net whose wire runs through a unit, horizontally and vertically. */
  private readonly across: Int32Array;
  private readonly along: Int32Array;
  private readonly netIds: Map<string, number>;
  private readonly netNames: readonly string[];
  private readonly cost: Int32Array;
  private readonly stamp: Int32Array;
  private readonly cameFrom: Int32Array;
  private readonly tree: Int32Array;
  /** Box around each net's tree, in units of the grid. */
  private readonly treeBounds = new Map<number, Box>();
  private readonly stubs: Wire[] = [];
  private generation = 0;

  constructor(obstacles: readonly Box[], terminals: readonly Terminal[], nets: readonly string[]) {
    const min = (pick: (b: Box) => number) => obstacles.reduce((m, b) => Math.min(m, Math.floor(pick(b))), 0);
    const max = (pick: (b: Box) => number) => obstacles.reduce((m, b) => Math.max(m, Math.ceil(pick(b))), 0);
    this.left = min((b) => b.left) - BORDER;
    this.top = min((b) => b.top) - BORDER;
    this.width = max((b) => b.right) + BORDER - this.left + 1;
    this.height = max((b) => b.bottom) + BORDER - this.top + 1;
    const size = this.width * this.height;
    this.owner = new Int32Array(size);
    this.across = new Int32Array(size);
    this.along = new Int32Array(size);
    this.tree = new Int32Array(size);
    this.cost = new Int32Array(size * 4);
    this.stamp = new Int32Array(size * 4);
    this.cameFrom = new Int32Array(size * 4);
    this.netNames = ['', ...nets];
    this.netIds = new Map(nets.map((net, i) => [net, i + 1]));
    for (const box of obstacles) this.block(box);
    for (const t of terminals) {
      const i = this.index(t.x + t.dx, t.y + t.dy);
      if (this.owner[i] !== BLOCKED) this.owner[i] = this.netIds.get(t.net)!;
    }
  }

  private index(x: number, y: number): number {
    return (y - this.top) * this.width + (x - this.left);
  }

  private point(i: number): Point {
    return { x: (i % this.width) + this.left, y: Math.floor(i / this.width) + this.top };
  }

  private block(box: Box): void {
    for (let y = Math.ceil(box.top); y <= Math.floor(box.bottom); y += 1) {
      for (let x = Math.ceil(box.left); x <= Math.floor(box.right); x += 1)
        this.owner[this.index(x, y)] = BLOCKED;
    }
  }

  /** Joins the pins of a net; answers those that could not be reached. */
  connect(net: string, terminals: readonly Terminal[]): Terminal[] {
    const id = this.netIds.get(net)!;
    const open = [...terminals];
    const first = open.shift()!;
    this.addStub(first);
    this.grow(id, this.index(first.x + first.dx, first.y + first.dy));
    const joined: Terminal[] = [first];
    const failed: Terminal[] = [];
    while (open.length > 0) {
      let best = 0;
      let bestDistance = Number.POSITIVE_INFINITY;
      for (let k = 0; k < open.length; k += 1) {
        const distance = Math.min(
          ...joined.map((j) => Math.abs(j.x - open[k]!.x) + Math.abs(j.y - open[k]!.y)),
        );
        if (distance < bestDistance) {
          bestDistance = distance;
          best = k;
        }
      }
      const [terminal] = open.splice(best, 1);
      if (this.search(terminal!, id)) {
        this.addStub(terminal!);
        joined.push(terminal!);
      } else {
        failed.push(terminal!);
      }
    }
    return failed;
  }

  private addStub(t: Terminal): void {
    const inner = this.index(t.x + t.dx, t.y + t.dy);
    const id = this.netIds.get(t.net)!;
    const lane = t.dx === 0 ? this.along : this.across;
    lane[inner] = id;
    this.stubs.push({ net: t.net, from: { x: t.x, y: t.y }, to: { x: t.x + t.dx, y: t.y + t.dy } });
  }

  private search(from: Terminal, id: number): boolean {
    this.generation += 1;
    const start = this.index(from.x + from.dx, from.y + from.dy);
    if (this.owner[start] === BLOCKED) return false;
    if (this.tree[start] === id) return true;
    const bounds = this.treeBounds.get(id)!;
    const estimate = (i: number) => {
      const x = i % this.width;
      const y = (i / this.width) | 0;
      const dx = x < bounds.left ? bounds.left - x : x > bounds.right ? x - bounds.right : 0;
      const dy = y < bounds.top ? bounds.top - y : y > bounds.bottom ? y - bounds.bottom : 0;
      return dx + dy;
    };
    const buckets: number[][] = [];
    const push = (state: number, cost: number) => {
      if (this.stamp[state] === this.generation && this.cost[state]! <= cost) return;
      this.stamp[state] = this.generation;
      this.cost[state] = cost;
      const key = cost + estimate(state >> 2);
      (buckets[key] ??= []).push(state);
    };
    const startState = start * 4 + directionOf(from.dx, from.dy);
    this.cameFrom[startState] = -1;
    push(startState, 0);
    for (let key = 0; key < buckets.length; key += 1) {
      const bucket = buckets[key];
      if (!bucket) continue;
      for (let n = 0; n < bucket.length; n += 1) {
        const state = bucket[n]!;
        const at = state >> 2;
        const cost = this.cost[state]!;
        if (cost + estimate(at) !== key) continue;
        if (this.tree[at] === id) {
          this.keep(state, id);
          return true;
        }
        this.expand(state, id, cost, push);
      }
    }
    return false;
  }

  private expand(state: number, id: number, cost: number, push: (state: number, cost: number) => void): void {
    const at = state >> 2;
    const heading = state & 3;
    const x = at % this.width;
    const y = (at / this.width) | 0;
    const crossed = heading === RIGHT || heading === LEFT ? this.along[at]! : this.across[at]!;
    const mustGoOn = crossed !== 0 && crossed !== id;
    for (let direction = 0; direction < 4; direction += 1) {
      if (((direction + 2) & 3) === heading || (mustGoOn && direction !== heading)) continue;
      const nx = x + (direction === RIGHT ? 1 : direction === LEFT ? -1 : 0);
      const ny = y + (direction === DOWN ? 1 : direction === UP ? -1 : 0);
      if (nx < 0 || ny < 0 || nx >= this.width || ny >= this.height) continue;
      const next = ny * this.width + nx;
      const owner = this.owner[next]!;
      if (owner !== 0 && owner !== id) continue;
      const isHorizontal = direction === RIGHT || direction === LEFT;
      const same = isHorizontal ? this.across[next]! : this.along[next]!;
      const square = isHorizontal ? this.along[next]! : this.across[next]!;
      if (same !== 0 && same !== id) continue;
      const isCrossing = square !== 0 && square !== id;
      const nextState = next * 4 + direction;
      const nextCost =
        cost + STEP_COST + (direction === heading ? 0 : TURN_COST) + (isCrossing ? CROSSING_COST : 0);
      const before =
        this.stamp[nextState] === this.generation ? this.cost[nextState]! : Number.POSITIVE_INFINITY;
      if (nextCost >= before) continue;
      this.cameFrom[nextState] = state;
      push(nextState, nextCost);
    }
  }

  /** Adds a unit to a net's tree, and to the box around it. */
  private grow(id: number, at: number): void {
    if (this.tree[at] === id) return;
    this.tree[at] = id;
    const x = at % this.width;
    const y = (at / this.width) | 0;
    const box = this.treeBounds.get(id);
    this.treeBounds.set(id, {
      left: Math.min(box?.left ?? x, x),
      right: Math.max(box?.right ?? x, x),
      top: Math.min(box?.top ?? y, y),
      bottom: Math.max(box?.bottom ?? y, y),
    });
  }

  /** Writes the path that ends in a state into the net's tree. */
  private keep(end: number, id: number): void {
    for (let state = end; state >= 0;) {
      const at = state >> 2;
      this.grow(id, at);
      const before = this.cameFrom[state]!;
      if (before >= 0) {
        const direction = state & 3;
        const lane = direction === RIGHT || direction === LEFT ? this.across : this.along;
        lane[at] = id;
        lane[before >> 2] = id;
        this.grow(id, before >> 2);
        this.links.add(Math.min(at, before >> 2) * 2 + (lane === this.across ? 0 : 1));
      }
      state = before;
    }
  }

  /** Unit steps that carry wire: lower index times two, plus one when vertical. */
  private readonly links = new Set<number>();

  /** Straight runs of wire, joined as long as they go. */
  wires(): Wire[] {
    const runs: Wire[] = [...this.stubs];
    const seen = new Set<number>();
    for (const link of [...this.links].sort((a, b) => a - b)) {
      if (seen.has(link)) continue;
      const isVertical = (link & 1) === 1;
      const step = isVertical ? this.width : 1;
      const lane = isVertical ? this.along : this.across;
      const start = link >> 1;
      let end = start;
      while (this.links.has(end * 2 + (link & 1)) && lane[end] === lane[start]) {
        seen.add(end * 2 + (link & 1));
        end += step;
      }
      runs.push({ net: this.netNames[lane[start]!]!, from: this.point(start), to: this.point(end) });
    }
    return runs;
  }

  dots(): (Point & { net: string })[] {
    const arms = new Map<number, number>();
    const addArm = (i: number) => arms.set(i, (arms.get(i) ?? 0) + 1);
    for (const link of this.links) {
      addArm(link >> 1);
      addArm((link >> 1) + ((link & 1) === 1 ? this.width : 1));
    }
    for (const stub of this.stubs) addArm(this.index(stub.to.x, stub.to.y));
    return [...arms]
      .filter(([i, count]) => count > 2 && !this.isCrossing(i))
      .map(([i]) => ({ ...this.point(i), net: this.netNames[this.across[i]! || this.along[i]!]! }));
  }

  private isCrossing(i: number): boolean {
    return this.across[i] !== 0 && this.along[i] !== 0 && this.across[i] !== this.along[i];
  }

  countCrossings(): number {
    let count = 0;
    for (let i = 0; i < this.across.length; i += 1) if (this.isCrossing(i)) count += 1;
    return count;
  }
}
