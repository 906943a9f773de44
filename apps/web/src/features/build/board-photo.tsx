import type { BoardMark, BoardPhoto as LaidPhoto, PhotoResource } from '@zemble/contract';
import { holeWords, type PlacedBody } from '@zemble/core';
import { Button, Select } from 'antd';
import { useState, type MouseEvent } from 'react';
import { photoUrl } from '../../api/client.ts';
import { useUnitContext } from '../../unit/unit-context.tsx';
import type { BoardFrame, BoardSide } from './board-geometry.ts';
import styles from './board.module.css';
import { marksOn, photoTransform, type Landmark } from './photo-on-board.ts';

interface Props {
  readonly photo: PhotoResource;
  readonly laid: LaidPhoto | undefined;
  readonly bodies: readonly PlacedBody[];
  readonly frame: BoardFrame;
  readonly side: BoardSide;
}

/** A photo of the board under its layout, by two holes that are known on it. */
export function BoardPhoto({ photo, laid, bodies, frame, side }: Props) {
  const { unit } = useUnitContext();
  const marks = marksOn(photo, { photo: laid }, bodies);
  const transform = marks && photoTransform(photo, marks, frame, side);
  if (transform === undefined) return null;
  return (
    <image
      href={photoUrl(unit.id, photo)}
      width={photo.width}
      height={photo.height}
      transform={transform}
      className={styles.photo}
      preserveAspectRatio="none"
    />
  );
}

interface LayProps {
  readonly photo: PhotoResource;
  readonly landmarks: readonly [Landmark, Landmark];
  readonly onLaid: (laid: LaidPhoto) => void;
  readonly onCancel: () => void;
}

/** A photo is laid under the layout by hand: two holes are tapped on it, one after the other. */
export function LayPhoto({ photo, landmarks, onLaid, onCancel }: LayProps) {
  const { unit } = useUnitContext();
  const [first, setFirst] = useState<BoardMark | null>(null);
  const asked = landmarks[first ? 1 : 0];
  const tap = (event: MouseEvent<HTMLImageElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    const part = (at: number, from: number, size: number) => Math.min(1, Math.max(0, (at - from) / size));
    const mark: BoardMark = {
      hole: asked.hole,
      at: { x: part(event.clientX, box.left, box.width), y: part(event.clientY, box.top, box.height) },
    };
    if (first) onLaid({ photoId: photo.id, marks: [first, mark] });
    else setFirst(mark);
  };
  return (
    <>
      <p className={styles.lay} role="status">
        <span>
          Tap the {first ? 'second' : 'first'} of two holes on the photo:{' '}
          {asked.pin === undefined ? '' : `${asked.pin}, `}
          {holeWords(asked.hole)}.
        </span>
        <Button size="small" onClick={onCancel}>
          Leave it
        </Button>
      </p>
      <img
        src={photoUrl(unit.id, photo)}
        alt={`Photo ${photo.name}, to be laid under the board`}
        className={styles.layPhoto}
        onClick={tap}
        draggable={false}
      />
    </>
  );
}

/** Which photo lies under the layout. */
export function PhotoChoice({
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
      popupMatchSelectWidth={false}
    />
  );
}
