import type { Board, BoardPlace, Hole } from '@zemble/contract';
import type { LayerCircuit } from '../../circuit/circuit/index.ts';
import { isOfPackage } from '../../circuit/pinout/index.ts';
import { isInTheWay } from './check.ts';
import { readPlaces } from './placed.ts';
import { inventoryOf, type Item } from './propose/items.ts';

const same = (a: Hole, b: Hole): boolean => a[0] === b[0] && a[1] === b[1];
const key = ([c, r]: Hole): string => `${c},${r}`;

/** A board with nothing on it. */
export const blankBoard = (id: string, style: Board['style'], columns: number, rows: number): Board => ({
  id,
  style,
  columns,
  rows,
  places: [],
  cuts: [],
  links: [],
  terminals: [],
});

/** A place moved by whole holes. */
export const movedPlace = (
  { ref, holes, ...rest }: BoardPlace,
  columns: number,
  rows: number,
): BoardPlace => ({
  ...rest,
  ref,
  holes: Object.fromEntries(
    Object.entries(holes).map(([pin, [c, r]]): [string, Hole] => [pin, [c + columns, r + rows]]),
  ),
});

/** A board with one of its parts elsewhere, or in another way. */
export const withPlace = (board: Board, place: BoardPlace): Board => ({
  ...board,
  places: board.places.some((p) => p.ref === place.ref)
    ? board.places.map((p) => (p.ref === place.ref ? place : p))
    : [...board.places, place],
});

export const withoutPlace = (board: Board, ref: string): Board => ({
  ...board,
  places: board.places.filter((p) => p.ref !== ref),
});

/** A board with a cut more, or without the one that is there. */
export const withCut = (board: Board, hole: Hole): Board => ({
  ...board,
  cuts: board.cuts.some((c) => same(c, hole))
    ? board.cuts.filter((c) => !same(c, hole))
    : [...board.cuts, hole],
});

/** A board with a link more; one between the same holes is taken out instead. */
export function withLink(board: Board, from: Hole, to: Hole): Board {
  const ends = [key(from), key(to)].sort().join();
  const links = board.links.filter((l) => [key(l.from), key(l.to)].sort().join() !== ends);
  return { ...board, links: links.length < board.links.length ? links : [...links, { from, to }] };
}

/** A board without what was made by hand at a hole: its links, its terminal. */
export const cleared = (board: Board, hole: Hole): Board => ({
  ...board,
  links: board.links.filter((l) => !same(l.from, hole) && !same(l.to, hole)),
  terminals: board.terminals.filter((t) => !same(t.hole, hole)),
});

/** A board with a terminal of a net at a hole, in place of the one that was there. */
export const withTerminal = (board: Board, net: string, hole: Hole): Board => ({
  ...board,
  terminals: [...board.terminals.filter((t) => !same(t.hole, hole)), { net, hole }],
});

/** The item that a place is of, in the ways in which it can stand on a board. */
function itemOf(circuit: LayerCircuit, ref: string, style: Board['style']): Item | undefined {
  const { items } = inventoryOf(circuit, circuit.parts, style);
  return items.find((i) => i.ref === ref) ?? items.find((i) => isOfPackage(i.ref, ref));
}

/** Places that are the item's, in each of its ways, its first pin at a hole. */
const placesAt = ({ ref, keys, variants }: Item, [column, row]: Hole): BoardPlace[] =>
  variants.map(({ holes }) => ({
    ref,
    holes: Object.fromEntries(
      keys.map((pin, i): [string, Hole] => [pin, [column + holes[i]![0], row + holes[i]![1]]]),
    ),
  }));

const directionOf = (place: BoardPlace): string => {
  const holes = Object.values(place.holes);
  const [first, last] = [holes[0]!, holes.at(-1)!];
  return `${Math.sign(last[0] - first[0])} ${Math.sign(last[1] - first[1])}`;
};

const spanOf = (place: BoardPlace): number => {
  const holes = Object.values(place.holes);
  return Math.hypot(holes.at(-1)![0] - holes[0]![0], holes.at(-1)![1] - holes[0]![1]);
};

/** A part in another way: turned by a quarter about its first pin, or with its leads bent to the next distance. The same where it has no other. */
export function otherWay(
  circuit: LayerCircuit,
  board: Board,
  place: BoardPlace,
  how: 'turn' | 'span',
): BoardPlace {
  const item = itemOf(circuit, place.ref, board.style);
  const first = item && place.holes[item.keys[0]!];
  if (!item || !first) return place;
  const ways = placesAt(item, first);
  if (how === 'turn') {
    const span = spanOf(place);
    const directions = [...new Set(ways.filter((w) => Math.abs(spanOf(w) - span) < 0.01).map(directionOf))];
    const turning = directions.length > 1 ? ways.filter((w) => Math.abs(spanOf(w) - span) < 0.01) : ways;
    const order = [...new Set(turning.map(directionOf))];
    const next = order[(order.indexOf(directionOf(place)) + 1) % order.length];
    return turning.find((w) => directionOf(w) === next) ?? place;
  }
  const along = ways
    .filter((w) => directionOf(w) === directionOf(place))
    .sort((a, b) => spanOf(a) - spanOf(b));
  return along.find((w) => spanOf(w) > spanOf(place) + 0.01) ?? along[0] ?? place;
}

/**
 * A part put on a board where it is in nothing's way: near the middle of what its nets have there already. Undefined where
 * it is not made for holes, or there is no room.
 */
export function placeFor(circuit: LayerCircuit, board: Board, ref: string): BoardPlace | undefined {
  const item = itemOf(circuit, ref, board.style);
  if (!item) return undefined;
  const taken = new Set([
    ...board.places.flatMap((p) => Object.values(p.holes).map(key)),
    ...board.cuts.map(key),
    ...board.terminals.map((t) => key(t.hole)),
    ...board.links.flatMap((l) => [key(l.from), key(l.to)]),
  ]);
  const isOn = ([c, r]: Hole) => c >= 0 && r >= 0 && c < board.columns && r < board.rows;
  const { bodies } = readPlaces(circuit, board);
  for (let row = 0; row < board.rows; row += 1)
    for (let column = 0; column < board.columns; column += 1)
      for (const place of placesAt(item, [column, row])) {
        const holes = Object.values(place.holes);
        if (!holes.every((h) => isOn(h) && !taken.has(key(h)))) continue;
        const [placed] = readPlaces(circuit, { places: [place] }).bodies;
        if (placed && !isInTheWay(placed, bodies)) return place;
      }
  return undefined;
}

/** The place of a part on a board: its own, or that of the package that it is a unit of. R10 is not found by R1. */
export const placeOf = ({ places }: Pick<Board, 'places'>, ref: string): BoardPlace | undefined =>
  places.find((place) => place.ref === ref) ?? places.find((place) => isOfPackage(ref, place.ref));
