import type { Board, Hole } from '@zemble/contract';
import { movedPlace, placeOf, withPlace } from '@zemble/core';

/** What is pressed and moved: a part, by how many holes. */
export interface Drag {
  readonly ref: string;
  readonly from: Hole;
  readonly board: Board;
}

/** The board of a drag with its part moved to where the pointer is; the same board where it has not moved by a hole. */
export function draggedTo({ ref, from, board }: Drag, to: Hole): Board {
  const [dc, dr] = [to[0] - from[0], to[1] - from[1]];
  const place = placeOf(board, ref);
  return !place || (dc === 0 && dr === 0) ? board : withPlace(board, movedPlace(place, dc, dr));
}
