import type { Board, PartKind } from '@zemble/contract';
import { readPlaces } from '../board/index.ts';
import type { LayerCircuit, LayerPart } from '../../circuit/circuit/index.ts';

/** Kinds that are always beside the board, and always need a wire: what a unit is fed from and what it drives. */
export const ALWAYS_WIRED: ReadonlySet<PartKind> = new Set(['supply', 'speaker', 'headphone']);
/** Kinds that stand for what is connected from outside, and need none. */
export const OUTSIDE: ReadonlySet<PartKind> = new Set(['signal', 'load']);
/** Kinds that are mounted on a panel or a chassis unless they stand on a board (common practice). */
const MOUNTED: ReadonlySet<PartKind> = new Set([
  ...ALWAYS_WIRED,
  'potentiometer',
  'switch',
  'changeover',
  'jack',
  'capsule',
  'transformer',
]);

/** The parts that stand on one of the boards. */
export const refsOnBoards = (circuit: LayerCircuit, boards: readonly Board[]): ReadonlySet<string> =>
  new Set(boards.flatMap((b) => readPlaces(circuit, b).bodies.flatMap((x) => x.refs)));

/** What is probably wired by hand: parts of a panel or chassis that stand on none of the boards, in the order of the circuit. */
export function mountedParts(circuit: LayerCircuit, boards: readonly Board[]): readonly LayerPart[] {
  const onBoards = refsOnBoards(circuit, boards);
  return circuit.parts.filter((p) => MOUNTED.has(p.kind) && !onBoards.has(p.ref));
}
