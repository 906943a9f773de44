import type { BoardLink, BoardStyle, Hole } from '@zemble/contract';
import { EMPTY, LINK_COST, type Layout } from './layout.ts';

/** A layout with what makes it a board: in holes of the layout's grid. */
export interface Finished {
  readonly left: number;
  readonly top: number;
  readonly columns: number;
  readonly rows: number;
  readonly cuts: readonly Hole[];
  readonly links: readonly BoardLink[];
  readonly terminals: readonly { readonly net: number; readonly hole: Hole }[];
  readonly cost: number;
  /** Links and terminals that there was no room for: it is no board yet. */
  readonly missing: number;
}

/** A link or terminal without room, over any board that has all of them. */
const MISSING_COST = 10_000;
const CUT_COST = 0.3;
/** A link's length, and one of a pad's wires', in holes of board a hole. */
const LENGTH_COST = 0.3;
const PAD_LENGTH_COST = 0.5;
const COVERED_LINK_COST = 0.2;
/** A hole that a body lies over is taken for a link only where no other is near, holes. */
const COVERED_COST = 3;

/** Pins of one net side by side on a strip, with the free holes that its copper reaches. */
interface Run {
  readonly net: number;
  readonly row: number;
  readonly from: number;
  readonly to: number;
  /** What lies between this run and the next on the strip. */
  before: Gap;
  after: Gap;
}

/** The free holes between two runs; one of them has to stay free for the cut, unless one side is the end of the strip. */
interface Gap {
  readonly from: number;
  readonly to: number;
  readonly isEnd: boolean;
  /** Holes that are taken from its left end and from its right. */
  left: number;
  right: number;
}

const roomIn = ({ from, to, isEnd, left, right }: Gap): number =>
  to - from + 1 - left - right - (isEnd ? 0 : 1);

/**
 * Cuts, links and terminals for a layout, as many as there is room for on a board of the largest size.
 *
 * @param leaving nets that leave the board, each by a terminal
 */
export function finish(
  layout: Layout,
  style: BoardStyle,
  leaving: readonly number[],
  most: readonly [columns: number, rows: number],
): Finished {
  const spare = most[0] - (layout.right - layout.left + 1);
  let best: Finished | null = null;
  for (const [left, right] of EXTENSIONS) {
    if (left + right > spare || layout.left - left < 0 || layout.right + right >= layout.width) continue;
    const made =
      style === 'strip'
        ? finishStrips(layout, leaving, layout.left - left, layout.right + right)
        : finishPads(layout, leaving, layout.left - left, layout.right + right);
    if (made.missing === 0) return made;
    if (!best || made.missing < best.missing) best = made;
  }
  return best!;
}

/** Columns that are added at the left and the right where there is no room within. */
const EXTENSIONS: readonly (readonly [number, number])[] = [
  [0, 0],
  [1, 0],
  [0, 1],
  [1, 1],
  [2, 1],
  [2, 2],
];

function runsOf(layout: Layout, left: number, right: number): Run[][] {
  const rows: Run[][] = [];
  for (let row = layout.top; row <= layout.bottom; row += 1) {
    const runs: { net: number; from: number; to: number }[] = [];
    for (let c = layout.left; c <= layout.right; c += 1) {
      const net = layout.grid[row * layout.width + c]!;
      if (net === EMPTY) continue;
      const last = runs.at(-1);
      if (last?.net === net) last.to = c;
      else runs.push({ net, from: c, to: c });
    }
    let before: Gap = { from: left, to: (runs[0]?.from ?? right + 1) - 1, isEnd: true, left: 0, right: 0 };
    rows.push(
      runs.map((run, i): Run => {
        const next = runs[i + 1];
        const after: Gap = {
          from: run.to + 1,
          to: next ? next.from - 1 : right,
          isEnd: !next,
          left: 0,
          right: 0,
        };
        const made = { ...run, row, before, after };
        before = after;
        return made;
      }),
    );
  }
  return rows;
}

/** A free hole that a run's copper reaches, and how it is taken. */
interface Reach {
  readonly hole: Hole;
  readonly isCovered: boolean;
  take(): void;
}

function* reachesOf(layout: Layout, run: Run, taken: ReadonlySet<number>): Generator<Reach> {
  const start = run.row * layout.width;
  const reach = (column: number, take: () => void): Reach => ({
    hole: [column, run.row],
    isCovered: layout.covers[start + column]! > 0,
    take,
  });
  const within = (column: number) => taken.has(start + column);
  for (let c = run.from + 1; c < run.to; c += 1)
    if (layout.grid[start + c] === EMPTY && !within(c)) yield reach(c, () => undefined);
  const { before, after } = run;
  // From the nearest outwards: what lies further out needs the nearer ones as copper of this run.
  for (let room = roomIn(before), n = 0; n < room; n += 1) {
    const c = before.to - before.right - n;
    if (!within(c)) yield reach(c, () => (before.right = before.to - c + 1));
  }
  for (let room = roomIn(after), n = 0; n < room; n += 1) {
    const c = after.from + after.left + n;
    if (!within(c)) yield reach(c, () => (after.left = c - after.from + 1));
  }
}

function finishStrips(layout: Layout, leaving: readonly number[], left: number, right: number): Finished {
  const rows = runsOf(layout, left, right);
  const byNet = new Map<number, Run[]>();
  for (const run of rows.flat()) byNet.set(run.net, [...(byNet.get(run.net) ?? []), run]);
  const taken = new Set<number>();
  const mark = ({ hole: [c, r], take }: Reach) => {
    take();
    taken.add(r * layout.width + c);
  };
  const links: BoardLink[] = [];
  let covered = 0;
  let missing = 0;
  for (const runs of byNet.values()) {
    const joined = [runs[0]!];
    const open = runs.slice(1);
    while (open.length > 0) {
      const best = shortestLink(layout, joined, open, taken);
      if (!best) {
        missing += open.length;
        break;
      }
      mark(best.from);
      // Taking the first end may have taken the second's room.
      const again = [...reachesOf(layout, best.run, taken)].find(
        ({ hole }) => hole[0] === best.to.hole[0] && hole[1] === best.to.hole[1],
      );
      if (again) mark(again);
      else missing += 1;
      covered += Number(best.from.isCovered) + Number(best.to.isCovered);
      links.push({ from: best.from.hole, to: best.to.hole });
      joined.push(best.run);
      open.splice(open.indexOf(best.run), 1);
    }
  }
  const terminals: { net: number; hole: Hole }[] = [];
  for (const net of leaving) {
    const reaches = (byNet.get(net) ?? []).flatMap((run) => [...reachesOf(layout, run, taken)]);
    const free = reaches.filter((r) => !r.isCovered);
    const edge = ({ hole: [c] }: Reach) => Math.min(c - left, right - c);
    const [best] = free.sort((a, b) => edge(a) - edge(b));
    if (!best) {
      missing += 1;
      continue;
    }
    mark(best);
    terminals.push({ net, hole: best.hole });
  }
  const cuts = rows.flatMap((runs) =>
    runs.slice(0, -1).map(({ row, after }): Hole => [after.from + after.left, row]),
  );
  const [columns, height] = [right - left + 1, layout.bottom - layout.top + 1];
  const cost =
    MISSING_COST * missing +
    columns * height +
    LINK_COST * links.length +
    CUT_COST * cuts.length +
    COVERED_LINK_COST * covered +
    LENGTH_COST * lengthOf(links);
  return { left, top: layout.top, columns, rows: height, cuts, links, terminals, cost, missing };
}

const lengthOf = (links: readonly BoardLink[]): number =>
  links.reduce((sum, { from, to }) => sum + Math.hypot(from[0] - to[0], from[1] - to[1]), 0);

function shortestLink(
  layout: Layout,
  joined: readonly Run[],
  open: readonly Run[],
  taken: ReadonlySet<number>,
): { readonly run: Run; readonly from: Reach; readonly to: Reach } | undefined {
  let best: { run: Run; from: Reach; to: Reach } | undefined;
  let shortest = Infinity;
  const starts = joined.flatMap((run) => [...reachesOf(layout, run, taken)]);
  for (const run of open)
    for (const to of reachesOf(layout, run, taken))
      for (const from of starts) {
        const far =
          Math.hypot(from.hole[0] - to.hole[0], from.hole[1] - to.hole[1]) +
          COVERED_COST * (Number(from.isCovered) + Number(to.isCovered));
        if (far >= shortest) continue;
        shortest = far;
        best = { run, from, to };
      }
  return best;
}

/** On pads wires do all the joining: each net's pads by the shortest tree. */
function finishPads(layout: Layout, leaving: readonly number[], left: number, right: number): Finished {
  const nets = new Map<number, Hole[]>();
  for (let row = layout.top; row <= layout.bottom; row += 1)
    for (let c = layout.left; c <= layout.right; c += 1) {
      const net = layout.grid[row * layout.width + c]!;
      if (net !== EMPTY) nets.set(net, [...(nets.get(net) ?? []), [c, row]]);
    }
  const taken = new Set<number>();
  let missing = 0;
  const terminals: { net: number; hole: Hole }[] = [];
  for (const net of leaving) {
    const hole = freePad(layout, nets.get(net) ?? [], left, right, taken);
    if (!hole) {
      missing += 1;
      continue;
    }
    taken.add(hole[1] * layout.width + hole[0]);
    terminals.push({ net, hole });
    nets.set(net, [...(nets.get(net) ?? []), hole]);
  }
  const links = [...nets.values()].flatMap(shortestTree);
  const [columns, height] = [right - left + 1, layout.bottom - layout.top + 1];
  const cost = MISSING_COST * missing + columns * height + PAD_LENGTH_COST * lengthOf(links);
  return { left, top: layout.top, columns, rows: height, cuts: [], links, terminals, cost, missing };
}

/** The free pad at an edge that lies nearest to a net's. */
function freePad(
  layout: Layout,
  own: readonly Hole[],
  left: number,
  right: number,
  taken: ReadonlySet<number>,
): Hole | undefined {
  let best: Hole | undefined;
  let nearest = Infinity;
  for (let row = layout.top; row <= layout.bottom; row += 1)
    for (let c = left; c <= right; c += 1) {
      const at = row * layout.width + c;
      if (layout.grid[at] !== EMPTY || layout.covers[at]! > 0 || taken.has(at)) continue;
      const near = Math.min(...own.map(([x, y]) => Math.abs(x - c) + Math.abs(y - row)));
      const far = near + 2 * Math.min(c - left, right - c);
      if (far < nearest) [nearest, best] = [far, [c, row]];
    }
  return best;
}

function shortestTree(holes: readonly Hole[]): BoardLink[] {
  const joined = [holes[0]!];
  const open = holes.slice(1);
  const links: BoardLink[] = [];
  while (open.length > 0) {
    let best = { from: joined[0]!, to: open[0]!, far: Infinity };
    for (const from of joined)
      for (const to of open) {
        const far = Math.hypot(from[0] - to[0], from[1] - to[1]);
        if (far < best.far) best = { from, to, far };
      }
    links.push({ from: best.from, to: best.to });
    joined.push(best.to);
    open.splice(open.indexOf(best.to), 1);
  }
  return links;
}
