import type { Board, Panel, UnitResource } from '@zemble/contract';
import { turnedPoint } from './turned.ts';

/** What of a unit photos lie under. */
type Laid = Pick<UnitResource, 'boards' | 'panels'>;

/** Boards and panels with the photos under them named anew; one without a name there lies under none of them any more. */
export function relaid(
  { boards, panels }: { readonly boards: readonly Board[]; readonly panels: readonly Panel[] },
  nameOf: (photoId: string) => string | undefined,
): Laid {
  const named = <Photo extends { readonly photoId: string }>(photo: Photo | undefined) => {
    const photoId = photo && nameOf(photo.photoId);
    return photo && photoId !== undefined ? { photo: { ...photo, photoId } } : {};
  };
  return {
    boards: boards.map(({ photo, ...board }) => ({ ...board, ...named(photo) })),
    panels: panels.map(({ photo, ...panel }) => ({ ...panel, ...named(photo) })),
  };
}

/** Boards and panels under which a photo lies, after it was turned by quarters clockwise; those of the two that it changes. */
export function turnedUnder({ boards, panels }: Laid, photoId: string, quarters: number): Partial<Laid> {
  const isUnder = ({ photo }: Pick<Board | Panel, 'photo'>) => photo?.photoId === photoId;
  return {
    ...(boards.some(isUnder)
      ? {
          boards: boards.map((board): Board => {
            if (board.photo?.photoId !== photoId) return board;
            const [a, b] = board.photo.marks;
            const marks = [
              { ...a, at: turnedPoint(a.at, quarters) },
              { ...b, at: turnedPoint(b.at, quarters) },
            ] as const;
            return { ...board, photo: { ...board.photo, marks } };
          }),
        }
      : {}),
    ...(panels.some(isUnder)
      ? {
          panels: panels.map((panel): Panel => {
            if (panel.photo?.photoId !== photoId) return panel;
            const { from, to } = panel.photo;
            return {
              ...panel,
              photo: { ...panel.photo, from: turnedPoint(from, quarters), to: turnedPoint(to, quarters) },
            };
          }),
        }
      : {}),
  };
}
