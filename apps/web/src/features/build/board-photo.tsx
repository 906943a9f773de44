import type { Hole } from '@halfsplit/contract';
import { similarity, type PlacedBody } from '@halfsplit/core';
import { Select } from 'antd';
import { photoUrl } from '../../api/client.ts';
import { useUnitContext } from '../../unit/unit-context.tsx';
import type { BoardFrame, BoardSide } from './board-geometry.ts';
import styles from './board.module.css';

interface Props {
  readonly photoId: string | null;
  readonly bodies: readonly PlacedBody[];
  readonly frame: BoardFrame;
  readonly side: BoardSide;
}

/**
 * A photo of the board under its layout: laid on two pads that are marked on it and in holes here, those that lie farthest
 * apart. Nothing where two such pads are not there.
 */
export function BoardPhoto({ photoId, bodies, frame, side }: Props) {
  const { unit } = useUnitContext();
  const photo = unit.photos.find((p) => p.id === photoId);
  if (!photo) return null;
  const { width, height } = photo;
  const holes = new Map<string, Hole>(
    bodies.flatMap((b) => b.pins.map((p) => [`${p.ref}.${p.pin}`, p.hole] as [string, Hole])),
  );
  const common = photo.points.flatMap((point) => {
    const hole = holes.get(point.target);
    return hole ? [{ photo: { x: point.x * width, y: point.y * height }, board: frame.at(hole) }] : [];
  });
  const far = (a: (typeof common)[number], b: (typeof common)[number]) =>
    Math.hypot(a.photo.x - b.photo.x, a.photo.y - b.photo.y);
  const pairs = common.flatMap((a, i) => common.slice(i + 1).map((b) => [a, b] as const));
  const [first, ...rest] = pairs;
  if (!first) return null;
  const [a, b] = rest.reduce((best, pair) => (far(...pair) > far(...best) ? pair : best), first);
  const isMirrored = (photo.overlay.side === 'solder') !== (side === 'copper');
  const onto = similarity([a.photo, b.photo], [a.board, b.board], isMirrored);
  if (!onto) return null;
  const [o, x, y] = [onto({ x: 0, y: 0 }), onto({ x: 1, y: 0 }), onto({ x: 0, y: 1 })];
  return (
    <image
      href={photoUrl(unit.id, photo)}
      width={width}
      height={height}
      transform={`matrix(${x.x - o.x} ${x.y - o.y} ${y.x - o.x} ${y.y - o.y} ${o.x} ${o.y})`}
      className={styles.photo}
      preserveAspectRatio="none"
    />
  );
}

/** Which photo lies under the layout. */
function Choice({
  photoId,
  onChoose,
}: {
  readonly photoId: string | null;
  readonly onChoose: (id: string | null) => void;
}) {
  const { unit } = useUnitContext();
  if (unit.photos.length === 0) return null;
  return (
    <Select
      size="small"
      value={photoId ?? ''}
      onChange={(id) => onChoose(id === '' ? null : id)}
      options={[
        { value: '', label: 'no photo under it' },
        ...unit.photos.map((p) => ({ value: p.id, label: p.name })),
      ]}
      aria-label="Photo under the layout"
      title="A photo lies under the layout where two of its pads are marked"
      popupMatchSelectWidth={false}
    />
  );
}
BoardPhoto.Choice = Choice;
