import type { Board, BoardStyle, Hole, Wire } from '@zemble/contract';
import { MOST_HOLES } from '@zemble/contract';
import type { LayerCircuit } from '../../../circuit/circuit/index.ts';
import { seededRandom } from '../../../base/numeric/index.ts';
import { checkBoard } from '../check.ts';
import { belongsOnBoard, wiredRefs } from '../placed.ts';
import { inventoryOf, type Inventory } from './items.ts';
import { searchBoard, type Effort, type FoundBoard } from './search.ts';

/** What is asked of a proposal. */
export interface BoardWish {
  readonly style: BoardStyle;
  /** The largest board, in holes. */
  readonly columns: number;
  readonly rows: number;
  /** The same seed proposes the same board. */
  readonly seed: number;
  readonly id?: string | undefined;
  /** How far to search, over the usual: 1. */
  readonly effort?: number | undefined;
  readonly mayGoOn?: Effort['mayGoOn'];
  readonly onProgress?: Effort['onProgress'];
}

export type BoardProposal =
  | {
      readonly ok: true;
      readonly board: Board;
      /** What was taken for granted, a sentence each. */
      readonly notes: readonly string[];
    }
  | { readonly ok: false; readonly why: string };

/** The most parts that a board is proposed for. */
const MOST_PROPOSED = 60;
const STARTS = 6;
/** Rounds of the search of small and of large boards, by the number of their parts. */
const ROUNDS_PER_BOARD = 9_000;
const LEAST_ROUNDS = 150;
const MOST_ROUNDS = 1000;

/**
 * Proposes a board for the parts of a circuit that belong on one: a layout that passes the check, small and with few links;
 * or says why there is none in that size. The search is seeded: the same wish has the same answer, unless it is stopped.
 *
 * @param wires wires of the wiring map: parts that they reach stand beside the board
 */
export function proposeBoard(circuit: LayerCircuit, wires: readonly Wire[], wish: BoardWish): BoardProposal {
  const wired = wiredRefs(circuit, wires);
  const parts = circuit.parts.filter((p) => belongsOnBoard(p, wired));
  if (parts.length === 0) return { ok: false, why: 'No part of the circuit belongs on a board.' };
  if (parts.length > MOST_PROPOSED)
    return {
      ok: false,
      why: `${parts.length} parts are too many for a proposal, which places up to ${MOST_PROPOSED}: propose a stage at a time, or place them by hand.`,
    };
  const [columns, rows] = [wish.columns, wish.rows].map((n) => Math.min(MOST_HOLES, Math.floor(n))) as [
    number,
    number,
  ];
  const inventory = inventoryOf(circuit, parts, wish.style);
  if (inventory.refused.length > 0) return { ok: false, why: inventory.refused.join(' ') };
  const least = inventory.items.reduce((sum, item) => sum + item.nets.length, 0);
  if (least > columns * rows)
    return {
      ok: false,
      why: `The parts have ${least} legs, and a board of ${columns} by ${rows} has ${columns * rows} holes.`,
    };
  const onBoard = new Set(parts.map((p) => p.ref));
  const outside = new Set(
    circuit.parts.filter((p) => !onBoard.has(p.ref)).flatMap((p) => Object.values(p.pins)),
  );
  const leaving = inventory.nets.flatMap((net, i) =>
    outside.has(net) && inventory.items.some((item) => item.nets.includes(i)) ? [i] : [],
  );
  const effort = wish.effort ?? 1;
  const rounds = Math.min(
    MOST_ROUNDS,
    Math.max(LEAST_ROUNDS, Math.round(ROUNDS_PER_BOARD / inventory.items.length)),
  );
  const found = searchBoard(inventory.items, wish.style, leaving, [columns, rows], seededRandom(wish.seed), {
    starts: STARTS,
    rounds: Math.round(rounds * effort),
    mayGoOn: wish.mayGoOn,
    onProgress: wish.onProgress,
  });
  const none = `No layout was found on a board of ${columns} columns and ${rows} rows: give it more of either.`;
  if (!found) return { ok: false, why: none };
  const board = boardOf(found, inventory, wish);
  if (!checkBoard(circuit, board, wires).ok) return { ok: false, why: none };
  const { assumed } = inventory;
  return {
    ok: true,
    board,
    notes:
      assumed.length === 0
        ? []
        : [
            `Legs are taken in the order that is usual, which makers differ in: ${assumed.join(', ')}. Say the pinout of those that have another.`,
          ],
  };
}

/** A found layout as a board, its first column and row at 0. */
function boardOf({ spots, finished }: FoundBoard, { items, nets }: Inventory, wish: BoardWish): Board {
  const at = ([c, r]: Hole): Hole => [c - finished.left, r - finished.top];
  return {
    id: wish.id ?? 'b1',
    style: wish.style,
    columns: finished.columns,
    rows: finished.rows,
    places: items.map(({ ref, keys }, i) => {
      const { shape, column, row } = spots[i]!;
      return {
        ref,
        holes: Object.fromEntries(
          keys.map((key, k) => [key, at([column + shape.columns[k]!, row + shape.rows[k]!])]),
        ),
      };
    }),
    cuts: finished.cuts.map(at),
    links: finished.links.map(({ from, to }) => ({ from: at(from), to: at(to) })),
    terminals: finished.terminals.map(({ net, hole }) => ({ net: nets[net]!, hole: at(hole) })),
  };
}
