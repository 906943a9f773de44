import { Button } from 'antd';
import { lazy, Suspense, useState, type ReactNode } from 'react';
import { photoUrl } from '../../api/client.ts';
import { OneOf } from '../../ui/one-of.tsx';
import { useSelection } from '../../unit/selection.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { FileButton } from '../../ui/file-button.tsx';
import type { PointView } from '../../ui/path-drawing.tsx';
import { usePointNames } from '../path/index.ts';
import { askedWords, type Marking } from './marking.ts';
import { PhotoTools } from './photo-tools.tsx';
import styles from './photos.module.css';
import { useMarking } from './use-marking.ts';
import { usePads } from './use-pads.ts';
import { useOutboxState } from '../../api/outbox-context.tsx';
import { useUpload } from './use-upload.ts';

const PhotoBoard = lazy(() => import('../../ui/photo-board.tsx').then((m) => ({ default: m.PhotoBoard })));

interface Props {
  readonly points?: ReadonlyMap<string, PointView>;
  /** Short text beside a point, with its tone. */
  readonly labels?: ReadonlyMap<string, { readonly text: string; readonly tone: string | null }>;
  /** Without a head of its own: it stands under somebody else's. */
  readonly isBare?: boolean;
  /** What stands in its head in the place of its name. */
  readonly switcher?: ReactNode;
  /** What choosing a point does, when it is more than selecting it. */
  readonly onSelectPoint?: (id: string) => void;
}

/** What is to be tapped now, and how it is left. */
function MarkingNote({
  marks,
  marking,
}: {
  readonly marks: ReturnType<typeof useMarking>;
  readonly marking: Marking;
}) {
  const { nameOf } = usePointNames();
  return (
    <>
      <span className={styles.placingNote} role="status">
        Tap <strong>{askedWords(marking, nameOf)}</strong>.
      </span>
      {marking.of === 'track' && (
        <Button size="small" type="primary" onClick={marks.finishTrack}>
          It ends here
        </Button>
      )}
      {marking.of === 'pads' && (
        <Button size="small" onClick={marks.skip}>
          Next part
        </Button>
      )}
      <Button size="small" onClick={() => marks.setMarking(null)}>
        Leave it
      </Button>
    </>
  );
}

/** Photos of the boards, with the points, pads and tracks on them. */
export function PhotosPanel({ points, labels, isBare = false, switcher, onSelectPoint }: Props) {
  const { unit } = useUnitContext();
  const { selectedPoint, selectPoint, selectRef, selectNet } = useSelection();
  const [chosen, setChosen] = useState<string | null>(null);
  const { numberOf, nameOf } = usePointNames();
  const upload = useUpload();
  const { pending } = useOutboxState();
  const coming = pending.filter((w) => w.unitId === unit.id && w.change.type === 'add-photo').length;
  const marks = useMarking(unit.photos.find((p) => p.id === chosen) ?? unit.photos[0]);
  const { photo, marking } = marks;
  const { pads, shapes } = usePads(photo);
  const add = (
    <FileButton accept="image/*" onFile={upload}>
      Add a photo
    </FileButton>
  );
  // In the head, where it moves nothing under the finger.
  const onTheWay = (
    <span className="zb-dim" role="status">
      {coming > 0 && `${coming} on the way`}
    </span>
  );
  const body = (
    <>
      {!photo ? (
        <p className="zb-empty-words">
          Photograph each board before you touch it. Points put on a photo are the same points as on the path.
          {isBare ? '' : ' '}
          {add}
        </p>
      ) : (
        <>
          <Suspense fallback={null}>
            <PhotoBoard
              key={photo.id}
              photo={photo}
              src={photoUrl(unit.id, photo)}
              numberOf={numberOf}
              nameOf={nameOf}
              selected={selectedPoint}
              onSelect={onSelectPoint ?? selectPoint}
              damage={(unit.intake.damage ?? []).filter((d) => d.photoId === photo.id)}
              pads={pads}
              shapes={shapes}
              drawn={marking?.of === 'track' ? marking.places : []}
              onSelectPad={(pad) => {
                selectRef(pad.ref);
                selectNet(pad.net);
              }}
              onPlace={marks.place}
              {...(points ? { points } : {})}
              {...(labels ? { labels } : {})}
              // One or the other, so that the picture does not move under the finger.
              tools={
                marking === null ? (
                  <PhotoTools photo={photo} marks={marks} isBare={isBare} />
                ) : (
                  <MarkingNote marks={marks} marking={marking} />
                )
              }
            />
          </Suspense>
        </>
      )}
    </>
  );
  const tabs = unit.photos.length > 1 && photo && (
    <OneOf
      label="Which photo"
      options={unit.photos.map((p) => ({ value: p.id, label: p.name }))}
      value={photo.id}
      onChange={setChosen}
    />
  );
  if (isBare)
    return (
      <div className={styles.photoPanel}>
        {tabs}
        {onTheWay}
        {body}
      </div>
    );
  return (
    <section className="zb-panel" aria-label="Photos">
      <header className="zb-panel-head">
        {switcher ?? <h2>Photos</h2>}
        {tabs || <span className="zb-dim">{photo?.name}</span>}
        <span className="zb-grow" />
        {onTheWay}
        {photo && add}
      </header>
      <div className={styles.photoPanel}>{body}</div>
    </section>
  );
}
