import type { Board } from '@zemble/contract';
import {
  keyOfEnd,
  lugsOf,
  mountedParts,
  netsOf,
  readEnd,
  type LayerCircuit,
  type LayerPart,
  type ReadWire,
  type WireEnd,
} from '@zemble/core';

const CARD = { wide: 190, high: 120, gap: 26 } as const;
const LUG = { step: 30, row: 24 } as const;
const BOARD = { wide: 150, row: 26, top: 40, edge: 12, least: 60 } as const;
/** A pointer this near to a place means it. */
const REACH = 16;

export interface Spot {
  readonly x: number;
  readonly y: number;
}

/** A lug, a place on the board, or an old wire's other end, where a wire can be put. */
export interface WirePlace {
  /** The same place has the same key. */
  readonly key: string;
  readonly end: WireEnd;
  readonly net: string | undefined;
  /** What is written at it. */
  readonly label: string;
  /** One of the board has a spot at either edge. */
  readonly spots: readonly Spot[];
  readonly isLug: boolean;
}

export interface WiringCard {
  readonly part: LayerPart;
  readonly x: number;
  readonly y: number;
  readonly isWired: boolean;
}

/** Where everything of a wiring map is drawn: parts at either side, their lugs from behind, and the board between. */
export interface WiringPlan {
  readonly width: number;
  readonly height: number;
  readonly card: { readonly wide: number; readonly high: number };
  readonly board: { readonly x: number; readonly y: number; readonly wide: number; readonly high: number };
  readonly cards: readonly WiringCard[];
  readonly places: readonly WirePlace[];
}

/** The map of a unit's wires, and of what stands beside the board and has none yet. */
export function wiringPlan(
  circuit: LayerCircuit,
  wires: readonly ReadWire[],
  boards: readonly Board[],
): WiringPlan {
  const ends = wires.flatMap((w) => w.ends);
  const wired = [...new Set(ends.flatMap((e) => (e.on === 'lug' ? [e.ref] : [])))];
  const mounted = mountedParts(circuit, boards).filter((p) => !wired.includes(p.ref));
  const shown = [...wired.flatMap((ref) => circuit.parts.filter((p) => p.ref === ref)), ...mounted];
  const half = Math.ceil(shown.length / 2);
  const right = CARD.wide + BOARD.wide + 4 * CARD.gap;
  const cards = shown.map((part, i): WiringCard => ({
    part,
    x: i < half ? CARD.gap : right,
    y: CARD.gap + (i % half) * (CARD.high + CARD.gap),
    isWired: wired.includes(part.ref),
  }));
  const rows = boardRows(circuit, ends, boards, shown);
  const board = {
    x: CARD.wide + 2.5 * CARD.gap,
    y: CARD.gap,
    wide: BOARD.wide,
    high: Math.max(BOARD.least, rows.length * BOARD.row + 36),
  };
  const lugs = cards.flatMap(({ part, x, y }) =>
    lugsOf(part).map((lug): WirePlace => ({
      key: `${part.ref}.${lug.pin}`,
      end: { on: 'lug', ref: part.ref, pin: lug.pin, net: part.pins[lug.pin]! },
      net: part.pins[lug.pin],
      label: lug.label,
      isLug: true,
      spots: [{ x: x + CARD.wide / 2 + lug.x * LUG.step, y: y + CARD.high / 2 + 8 + lug.y * LUG.row }],
    })),
  );
  const onBoard = rows.map((row, i): WirePlace => {
    const y = board.y + BOARD.top + i * BOARD.row;
    return {
      ...row,
      isLug: false,
      spots: [
        { x: board.x + BOARD.edge, y },
        { x: board.x + board.wide - BOARD.edge, y },
      ],
    };
  });
  return {
    width: right + CARD.wide + CARD.gap,
    height: Math.max(half * (CARD.high + CARD.gap) + CARD.gap, board.high + 2 * CARD.gap),
    card: { wide: CARD.wide, high: CARD.high },
    board,
    cards,
    places: [...lugs, ...onBoard],
  };
}

type Row = Omit<WirePlace, 'spots' | 'isLug'>;

/** The board's terminals, what else wires go to on it, and old wires' words; without a board, the nets that lead to the lugs. */
function boardRows(
  circuit: LayerCircuit,
  ends: readonly WireEnd[],
  boards: readonly Board[],
  shown: readonly LayerPart[],
): readonly Row[] {
  const terminals = boards.flatMap((b) => b.terminals.map((t) => t.name ?? t.net));
  const lugNets = new Set(shown.flatMap((p) => Object.values(p.pins)));
  const others = circuit.parts.filter((p) => !shown.includes(p));
  const leading = netsOf({ ...circuit, parts: others }).filter((net) => lugNets.has(net));
  const rows = new Map<string, Row>();
  const add = (end: WireEnd, label: string) => {
    const key = keyOfEnd(end);
    if (!rows.has(key)) rows.set(key, { key, end, net: end.on === 'words' ? undefined : end.net, label });
  };
  for (const name of boards.length > 0 ? terminals : leading)
    add(readEnd(`board.${name}`, circuit, boards), name);
  for (const end of ends) if (end.on === 'board') add(end, end.name);
  for (const end of ends) if (end.on === 'words') add(end, end.words);
  return [...rows.values()];
}

const distance = (a: Spot, b: Spot): number => Math.hypot(a.x - b.x, a.y - b.y);

/** The place that a pointer means; undefined where none is near. */
export function placeAt(plan: WiringPlan, at: Spot): WirePlace | undefined {
  const near = plan.places
    .map((place) => ({ place, far: Math.min(...place.spots.map((s) => distance(s, at))) }))
    .filter(({ far }) => far <= REACH)
    .sort((a, b) => a.far - b.far);
  return near[0]?.place;
}

/** A wire as it is drawn, from a lug where it has one. */
export interface WirePath {
  readonly from: Spot;
  readonly to: Spot;
  readonly d: string;
  /** Where its colour is written. */
  readonly label: Spot;
}

/** Between two places: out of a lug downwards, into the board from its nearer side. */
export function wirePath(a: WirePlace, b: WirePlace): WirePath {
  const [first, second] = a.isLug ? [a, b] : [b, a];
  const from = nearestSpot(first, second.spots[0]!);
  const to = nearestSpot(second, from);
  const side = Math.sign(from.x - to.x) || 1;
  return second.isLug
    ? {
        from,
        to,
        d: `M ${from.x} ${from.y} C ${from.x} ${from.y + 60} ${to.x} ${to.y + 60} ${to.x} ${to.y}`,
        label: { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 + 42 },
      }
    : {
        from,
        to,
        d: `M ${from.x} ${from.y} C ${from.x} ${from.y + 52} ${to.x + side * 70} ${to.y} ${to.x} ${to.y}`,
        label: { x: to.x + side * 44, y: to.y - 6 },
      };
}

const nearestSpot = ({ spots }: WirePlace, to: Spot): Spot =>
  spots.reduce((best, spot) => (Math.abs(spot.x - to.x) < Math.abs(best.x - to.x) ? spot : best));
