import { DEFECTS, type Defect, type PhotoResource, type PhotoSide } from '@zemble/contract';
import { Button, Dropdown, Select } from 'antd';
import { useMemo } from 'react';
import { useSelection } from '../../unit/selection.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { usePointNames } from '../path/index.ts';
import type { useMarking } from './use-marking.ts';

interface Props {
  readonly photo: PhotoResource;
  readonly marks: ReturnType<typeof useMarking>;
  /** Only damage is marked where it stands under somebody else's head. */
  readonly isBare: boolean;
}

const SIDES: { value: PhotoSide; label: string }[] = [
  { value: 'parts', label: 'Parts side' },
  { value: 'solder', label: 'Solder side' },
];

/** What can be marked on a photo. */
export function PhotoTools({ photo, marks, isBare }: Props) {
  const { setMarking } = marks;
  return (
    <>
      {!isBare && <PadTools photo={photo} marks={marks} />}
      <Select<Defect>
        size="small"
        value={null}
        placeholder="Mark damage"
        aria-label="Mark damage"
        options={DEFECTS.map((value) => ({ value }))}
        popupMatchSelectWidth={false}
        onChange={(defect) => setMarking({ of: 'damage', defect })}
      />
      {!isBare && <PointTools photo={photo} marks={marks} />}
    </>
  );
}

type ToolProps = Pick<Props, 'photo' | 'marks'>;

/** Pads of the circuit's parts, and where their nets run. */
function PadTools({ photo, marks }: ToolProps) {
  const { unit, document } = useUnitContext();
  const { selectedRef } = useSelection();
  const { setMarking, markPads, write } = marks;
  const { parts } = document.circuit;
  const others = unit.photos.filter((p) => p.id !== photo.id);
  const first = selectedRef ?? parts[0]?.ref;
  return (
    <>
      <Select<PhotoSide>
        size="small"
        value={photo.overlay.side ?? 'parts'}
        options={SIDES}
        aria-label="Side that is seen"
        popupMatchSelectWidth={false}
        onChange={(side) => write(photo, { overlay: { side } })}
      />
      {first !== undefined && (
        <Dropdown.Button
          size="small"
          type="primary"
          onClick={() => markPads(first)}
          menu={{
            items: parts.map(({ ref }) => ({ key: ref, label: ref })),
            style: { maxHeight: 300, overflow: 'auto' },
            onClick: ({ key }) => markPads(key),
          }}
          style={{ width: 'auto' }}
        >
          Mark pads of {first}
        </Dropdown.Button>
      )}
      <Button size="small" onClick={() => setMarking({ of: 'track', places: [] })}>
        Draw a track
      </Button>
      {(photo.overlay.tracks ?? []).length > 0 && (
        <Button
          size="small"
          type="text"
          onClick={() => write(photo, { overlay: { tracks: photo.overlay.tracks!.slice(0, -1) } })}
        >
          Take the last track off
        </Button>
      )}
      {others.length > 0 && (
        <Select
          size="small"
          value={null}
          placeholder="Line up with"
          aria-label="Line up with another photo"
          options={others.map((p) => ({ value: p.id, label: p.name }))}
          popupMatchSelectWidth={false}
          onChange={(to: string) => setMarking({ of: 'link', from: photo.id, to, places: [] })}
        />
      )}
    </>
  );
}

/** Numbered points of the path, nets and parts as one place. */
function PointTools({ photo, marks }: ToolProps) {
  const { unit, change } = useUnitContext();
  const { selectedPoint } = useSelection();
  const { numberOf } = usePointNames();
  const { setMarking, write } = marks;
  const targets = useMemo(
    () => [
      {
        label: 'Test points',
        options: (unit.path?.testPoints ?? []).map((t) => ({
          value: t.id,
          label: `${t.id} ${t.name ?? ''}`,
        })),
      },
      {
        label: 'Blocks',
        options: (unit.path?.blocks ?? []).map((b) => ({ value: b.id, label: b.name ?? b.id })),
      },
      {
        label: 'Nets',
        options: [...new Set(unit.parts.flatMap((p) => Object.values(p.part.pins)))].map((n) => ({
          value: n,
          label: `net ${n}`,
        })),
      },
      {
        label: 'Parts',
        options: unit.parts.map(({ part }) => ({ value: part.ref, label: part.ref })),
      },
    ],
    [unit.path, unit.parts],
  );
  return (
    <>
      <Button size="small" onClick={() => write(photo, { turn: 1 })}>
        Turn
      </Button>
      <Select
        size="small"
        showSearch
        value={null}
        placeholder="Put a point"
        aria-label="Put a point"
        options={targets}
        popupMatchSelectWidth={false}
        onChange={(target: string) => setMarking({ of: 'point', target })}
      />
      {selectedPoint !== null && photo.points.some((p) => p.target === selectedPoint) && (
        <Button
          size="small"
          onClick={() => write(photo, { points: photo.points.filter((p) => p.target !== selectedPoint) })}
        >
          Take {String(numberOf(selectedPoint))} off
        </Button>
      )}
      <Button
        size="small"
        type="text"
        onClick={() => change({ type: 'remove-photo', photoId: photo.id, seen: photo.version })}
      >
        Remove photo
      </Button>
    </>
  );
}
