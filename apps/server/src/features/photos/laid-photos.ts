import type { Board, Damage, IntakeData, Panel, UnitResource } from '@zemble/contract';
import { turnedPoint } from './turned.ts';

/** What of a unit photos lie under, or lies on them. */
type Laid = Pick<UnitResource, 'boards' | 'panels' | 'intake'>;

/** Boards, panels and damage with their photos named anew; one without a name there lies under and on none of them any more. */
export function relaid(
  {
    boards,
    panels,
    intake,
  }: { readonly boards: readonly Board[]; readonly panels: readonly Panel[]; readonly intake: IntakeData },
  nameOf: (photoId: string) => string | undefined,
): Laid {
  const named = <Photo extends { readonly photoId: string }>(photo: Photo | undefined) => {
    const photoId = photo && nameOf(photo.photoId);
    return photo && photoId !== undefined ? { photo: { ...photo, photoId } } : {};
  };
  return {
    boards: boards.map(({ photo, ...board }) => ({ ...board, ...named(photo) })),
    panels: panels.map(({ photo, ...panel }) => ({ ...panel, ...named(photo) })),
    intake: withDamage(intake, (mark) => {
      const { photoId, x: _x, y: _y, ...rest } = mark;
      if (photoId === undefined) return mark;
      const name = nameOf(photoId);
      return name === undefined ? rest : { ...mark, photoId: name };
    }),
  };
}

/** A complaint with each mark of damage as it is made anew; itself where there is none. */
const withDamage = (intake: IntakeData, make: (mark: Damage) => Damage): IntakeData =>
  intake.damage === undefined ? intake : { ...intake, damage: intake.damage.map(make) };

/** What lies under or on a photo, after it was turned by quarters clockwise; the fields of the unit that it changes. */
export function turnedWith(
  { boards, panels, intake }: Laid,
  photoId: string,
  quarters: number,
): Partial<Laid> {
  const isUnder = ({ photo }: Pick<Board | Panel, 'photo'>) => photo?.photoId === photoId;
  const isOn = (mark: Damage) => mark.photoId === photoId && mark.x !== undefined && mark.y !== undefined;
  return {
    ...(intake.damage?.some(isOn)
      ? {
          intake: withDamage(intake, (mark) =>
            isOn(mark) ? { ...mark, ...turnedPoint({ x: mark.x!, y: mark.y! }, quarters) } : mark,
          ),
        }
      : {}),
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
