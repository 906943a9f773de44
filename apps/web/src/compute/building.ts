import {
  benchSteps,
  ZembleError,
  proposeBoard,
  resolveLayer,
  type BoardProposal,
  type BoardWish,
  type UnitDocument,
  type Work,
  type WorkWish,
} from '@zemble/core';

export interface WorkRequest {
  readonly document: UnitDocument;
  readonly wish: WorkWish;
}

/** The bench work of a unit; nothing where the change that is asked for has gone. */
export function workOf({ document, wish }: WorkRequest): Work {
  try {
    return benchSteps(document, wish);
  } catch (error) {
    if (error instanceof ZembleError) return { steps: [], problems: [] };
    throw error;
  }
}

export interface BoardRequest {
  readonly document: UnitDocument;
  readonly wish: Omit<BoardWish, 'mayGoOn' | 'onProgress'>;
}

/** A search ends after this time with the best so far, ms. */
const LONGEST_MS = 20_000;

/** A board for the planned circuit of a unit. */
export function boardFor(
  { document, wish }: BoardRequest,
  onProgress: (share: number) => void,
): BoardProposal {
  const end = performance.now() + LONGEST_MS;
  return proposeBoard(resolveLayer(document.circuit, 'planned'), document.wires ?? [], {
    ...wish,
    onProgress,
    mayGoOn: () => performance.now() < end,
  });
}
