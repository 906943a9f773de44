import type { Part } from '../../circuit/circuit/index.ts';
import type { SymbolSheet } from './symbol-sheet.ts';
import { isTwoTerminal, pinsAt, type Box, type Placement, type Point } from './symbols.ts';

/** What a part that closes a loop pays for standing instead of lying, in units of wire. */
const STANDING_COST = 3;
/** What it costs to stand in the way of a straight wire, in units of wire: it turns four times to go around. */
const IN_THE_WAY = 16;
/** Units around all that a part is wired to in which it is put. */
const AROUND = 14;

/** A pin of a part, and where its net has been reached. */
export interface LoopEnd {
  readonly pin: string;
  readonly points: readonly Point[];
}

/** A straight line along a row: a wire goes there unless something stands in its way. */
export interface Run {
  readonly y: number;
  readonly left: number;
  readonly right: number;
}

/** Straight lines between points of one net that lie on one row. */
export function straightRuns(points: readonly Point[]): Run[] {
  const rows = new Map<number, number[]>();
  for (const { x, y } of points) rows.set(y, [...(rows.get(y) ?? []), x]);
  return [...rows].map(([y, all]): Run => ({ y, left: Math.min(...all), right: Math.max(...all) }));
}

/**
 * The free place at which a part between nets that stand already takes the least wire, and stands in the way of none.
 *
 * @param ends its pins on such nets, one at least
 * @param turns ways in which it may be turned
 * @returns undefined where there is no room around them
 */
export function shortestPlace(
  part: Part,
  ends: readonly LoopEnd[],
  turns: readonly Placement['turn'][],
  runs: readonly Run[],
  sheet: SymbolSheet,
): Placement | undefined {
  const all = ends.flatMap((e) => e.points);
  const [xs, ys] = [all.map((p) => p.x), all.map((p) => p.y)];
  const [left, right] = [Math.min(...xs) - AROUND, Math.max(...xs) + AROUND];
  const [top, bottom] = [Math.min(...ys) - AROUND, Math.max(...ys) + AROUND];
  let best: { at: Placement; cost: number } | undefined;
  for (const turn of turns) {
    for (const isFlipped of part.kind === 'opamp' ? [false, true] : [false]) {
      const pins = new Map(pinsAt(part, { x: 0, y: 0, turn, isFlipped }).map((p) => [p.name, p]));
      const isLying = turn % 2 === 1 || !isTwoTerminal(part);
      for (let y = top; y <= bottom; y += 1) {
        for (let x = left; x <= right; x += 1) {
          let cost = isLying ? 0 : STANDING_COST;
          for (const end of ends) {
            const p = pins.get(end.pin)!;
            cost += nearest(end.points, x + p.x + p.dx, y + p.y + p.dy);
          }
          if (best && cost >= best.cost) continue;
          const at: Placement = { x, y, turn, isFlipped };
          cost += IN_THE_WAY * runsCut(sheet.boxesOf(part, at), runs);
          if ((!best || cost < best.cost) && sheet.isFree(part, at)) best = { at, cost };
        }
      }
    }
  }
  return best?.at;
}

/** How many straight lines boxes would stand in the way of. */
const runsCut = (boxes: readonly Box[], runs: readonly Run[]): number =>
  runs.filter(({ y, left, right }) =>
    boxes.some((b) => b.top <= y && y <= b.bottom && b.left > left && b.right < right),
  ).length;

function nearest(points: readonly Point[], x: number, y: number): number {
  let best = Number.POSITIVE_INFINITY;
  for (const p of points) best = Math.min(best, Math.abs(p.x - x) + Math.abs(p.y - y));
  return best;
}
