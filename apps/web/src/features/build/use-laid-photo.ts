import type { Board, BoardPhoto, PhotoResource } from '@zemble/contract';
import type { PlacedBody } from '@zemble/core';
import { useState } from 'react';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { marksOn } from './photo-on-board.ts';

/** The photo under a layout, and what can be done with it. */
export interface LaidPhotoView {
  readonly photo: PhotoResource | undefined;
  readonly choose: (photoId: string | null) => void;
  /** Two holes are asked for on it. */
  readonly isLaying: boolean;
  /** Two holes are known on it, so that it can be laid anew. */
  readonly isLaid: boolean;
  readonly layAnew: () => void;
  readonly onLaid: (laid: BoardPhoto) => void;
  readonly leave: () => void;
}

/** As the board has it, until somebody chooses another one for it here. */
export function useLaidPhoto(
  board: Board | undefined,
  bodies: readonly PlacedBody[],
  keep: (board: Board) => void,
): LaidPhotoView {
  const { unit } = useUnitContext();
  const [chosen, setChosen] = useState<{ readonly board: string; readonly photoId: string | null } | null>(
    null,
  );
  const [isWished, setIsWished] = useState(false);
  const photoId = chosen && chosen.board === board?.id ? chosen.photoId : (board?.photo?.photoId ?? null);
  const photo = unit.photos.find((p) => p.id === photoId);
  const isLaid = photo !== undefined && board !== undefined && marksOn(photo, board, bodies) !== undefined;
  const choose = (id: string | null) => {
    if (!board) return;
    setChosen({ board: board.id, photoId: id });
    setIsWished(false);
    if (id !== null || !board.photo) return;
    const { photo: _gone, ...rest } = board;
    keep(rest);
  };
  return {
    photo,
    choose,
    isLaid,
    isLaying: photo !== undefined && (isWished || !isLaid),
    layAnew: () => setIsWished(true),
    onLaid(laid) {
      setIsWished(false);
      if (board) keep({ ...board, photo: laid });
    },
    leave: () => (isLaid ? setIsWished(false) : choose(null)),
  };
}
