import type { Board, UnitResource } from '@zemble/contract';
import { checkBoard, resolveLayer, type BoardReport, type LayerCircuit } from '@zemble/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import { unitAct } from '../../api/unit-act.ts';
import { useUnitContext } from '../../unit/unit-context.tsx';

/** The boards of a unit, the one that is worked on, and what is wrong with it. */
export interface Boards {
  readonly boards: readonly Board[];
  readonly board: Board | undefined;
  readonly report: BoardReport | undefined;
  /** What is planned: boards are compared with it. */
  readonly circuit: LayerCircuit;
  readonly choose: (id: string) => void;
  /** Shows a board while it is being dragged, before it is kept; null ends it. */
  readonly preview: (board: Board | null) => void;
  /** Keeps a board: a new one, or another state of one. */
  readonly keep: (board: Board) => void;
  readonly remove: (id: string) => void;
}

export function useBoards(): Boards {
  const { unit, document, change } = useUnitContext();
  const [id, choose] = useState<string | null>(null);
  const [shown, preview] = useState<Board | null>(null);
  const boards: readonly Board[] = unit.boards;
  const kept = boards.find((b) => b.id === id) ?? boards[0];
  const board = shown ?? kept;
  const circuit = useMemo(() => resolveLayer(document.circuit, 'planned'), [document.circuit]);
  const report = useMemo(
    () => (board ? checkBoard(circuit, board, document.wires ?? []) : undefined),
    [circuit, board, document.wires],
  );
  const latest = useRef(unit);
  useEffect(() => {
    latest.current = unit;
  }, [unit]);
  /** Of the boards as they are by now: what somebody else did meanwhile, or a drag during a search, is not overwritten unseen. */
  const write = (make: (boards: readonly Board[]) => readonly Board[]) => {
    const now = latest.current;
    change(unitAct(now, { boards: make(now.boards) as UnitResource['boards'] }));
  };
  return {
    boards,
    board,
    report,
    circuit,
    choose,
    preview,
    keep(next) {
      preview(null);
      choose(next.id);
      write((now) =>
        now.some((b) => b.id === next.id) ? now.map((b) => (b.id === next.id ? next : b)) : [...now, next],
      );
    },
    remove(gone) {
      write((now) => now.filter((b) => b.id !== gone));
    },
  };
}
