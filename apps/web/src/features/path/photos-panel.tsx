import { unitChange } from '../../api/change.ts';
import { DEFECTS, type Defect, type PhotoResource } from '@halfsplit/contract';
import { withDamage } from '@halfsplit/core';
import { Button, Segmented, Select } from 'antd';
import { lazy, Suspense, useMemo, useState } from 'react';
import { useSWRConfig } from 'swr';
import { photoUrl, sendPhoto } from '../../api/client.ts';
import { newId } from '../../api/outbox-store.ts';
import { applyNews } from '../../api/use-unit.ts';
import { useSelection } from '../../unit/selection.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { FileButton } from '../../ui/file-button.tsx';
import type { PointView } from '../../ui/path-drawing.tsx';
import { usePointNames } from './use-path.ts';
import styles from './path.module.css';

const PhotoBoard = lazy(() => import('../../ui/photo-board.tsx').then((m) => ({ default: m.PhotoBoard })));

/** Photos of the boards, with points on them; bare where it stands under somebody else's head. */
export function PhotosPanel({
  points,
  labels,
  isBare = false,
  onSelectPoint,
}: {
  points?: ReadonlyMap<string, PointView>;
  /** Short text beside a point, with its tone. */
  labels?: ReadonlyMap<string, { readonly text: string; readonly tone: string | null }>;
  isBare?: boolean;
  /** What choosing a point does, when it is more than selecting it. */
  onSelectPoint?: (id: string) => void;
}) {
  const { unit, change } = useUnitContext();
  const { selectedPoint, selectPoint } = useSelection();
  const [chosen, setChosen] = useState<string | null>(null);
  const [placing, setPlacing] = useState<string | null>(null);
  const [marking, setMarking] = useState<Defect | null>(null);
  const { numberOf, nameOf } = usePointNames();
  const { upload, failure, isBusy } = useUpload(unit.id);
  const photo = unit.photos.find((p) => p.id === chosen) ?? unit.photos[0];
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
  const set = (values: { points?: PhotoResource['points']; turn?: number; name?: string }) =>
    photo && change({ type: 'update-photo', photoId: photo.id, seen: photo.version, values });
  const place = (x: number, y: number) => {
    if (!photo || placing === null) return;
    set({ points: [...photo.points.filter((p) => p.target !== placing), { target: placing, x, y }] });
    selectPoint(placing);
    setPlacing(null);
  };
  const damage = (unit.intake.damage ?? []).filter((d) => d.photoId === photo?.id);
  const mark = (x: number, y: number) => {
    if (!photo || marking === null) return;
    const target = nearestPoint(photo, x, y);
    const seen = { defect: marking, ...(target ? { target } : {}), photoId: photo.id, x, y };
    const intake = withDamage(unit.intake, { ...seen, at: new Date().toISOString() });
    change(unitChange(unit, { intake }));
    setMarking(null);
  };
  const add = (
    <FileButton accept="image/*" onFile={(file) => void upload(file)}>
      {isBusy ? 'Adding…' : 'Add a photo'}
    </FileButton>
  );
  const body = (
    <>
      {failure && (
        <p className="hs-caution" role="alert">
          {failure}
        </p>
      )}
      {!photo ? (
        <p className="hs-empty-words">
          Photograph each board before you touch it. Points put on a photo are the same points as on the path.
          {isBare ? '' : ' '}
          {add}
        </p>
      ) : (
        <>
          {placing !== null && (
            <p className={styles.placingNote} role="status">
              Choose the place of <strong>{nameOf(placing)}</strong> on the photo.{' '}
              <Button size="small" onClick={() => setPlacing(null)}>
                Leave it
              </Button>
            </p>
          )}
          {marking !== null && (
            <p className={styles.placingNote} role="status">
              Choose on the photo where it is <strong>{marking}</strong>.{' '}
              <Button size="small" onClick={() => setMarking(null)}>
                Leave it
              </Button>
            </p>
          )}
          <Suspense fallback={null}>
            <PhotoBoard
              key={photo.id}
              photo={photo}
              src={photoUrl(unit.id, photo)}
              numberOf={numberOf}
              nameOf={nameOf}
              selected={selectedPoint}
              onSelect={onSelectPoint ?? selectPoint}
              damage={damage}
              onPlace={marking !== null ? mark : placing === null ? undefined : place}
              {...(points ? { points } : {})}
              {...(labels ? { labels } : {})}
              tools={
                <>
                  <Select<Defect>
                    size="small"
                    value={null}
                    placeholder="Mark damage"
                    aria-label="Mark damage"
                    options={DEFECTS.map((value) => ({ value }))}
                    popupMatchSelectWidth={false}
                    onChange={(defect) => setMarking(defect)}
                  />
                  {!isBare && (
                    <>
                      <Button size="small" onClick={() => set({ turn: 1 })}>
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
                        onChange={(target: string) => setPlacing(target)}
                      />
                      {selectedPoint !== null && photo.points.some((p) => p.target === selectedPoint) && (
                        <Button
                          size="small"
                          onClick={() =>
                            set({ points: photo.points.filter((p) => p.target !== selectedPoint) })
                          }
                        >
                          Take {String(numberOf(selectedPoint))} off
                        </Button>
                      )}
                      <Button
                        size="small"
                        type="text"
                        onClick={() =>
                          change({ type: 'remove-photo', photoId: photo.id, seen: photo.version })
                        }
                      >
                        Remove photo
                      </Button>
                    </>
                  )}
                </>
              }
            />
          </Suspense>
        </>
      )}
    </>
  );
  const tabs = unit.photos.length > 1 && photo && (
    <Segmented
      size="small"
      options={unit.photos.map((p) => ({ value: p.id, label: p.name }))}
      value={photo.id}
      onChange={(id) => setChosen(id)}
    />
  );
  if (isBare)
    return (
      <div className={styles.photoPanel}>
        {tabs}
        {body}
      </div>
    );
  return (
    <section className="hs-panel" aria-label="Photos">
      <header className="hs-panel-head">
        <h2>Photos</h2>
        {tabs || <span className="hs-dim">{photo?.name}</span>}
        <span className="hs-grow" />
        {photo && add}
      </header>
      <div className={styles.photoPanel}>{body}</div>
    </section>
  );
}

/** Damage within this part of the picture's width of a point is at that point. */
const NEAR = 0.08;

function nearestPoint({ points, width, height }: PhotoResource, x: number, y: number): string | undefined {
  const distance = (p: { readonly x: number; readonly y: number }) =>
    Math.hypot(p.x - x, ((p.y - y) * height) / width);
  const [nearest] = [...points].sort((a, b) => distance(a) - distance(b));
  return nearest && distance(nearest) <= NEAR ? nearest.target : undefined;
}

/** Sends a picture; while it is on its way, and when it fails, the page says so. */
function useUpload(unitId: string) {
  const { mutate, cache } = useSWRConfig();
  const [failure, setFailure] = useState<string | null>(null);
  const [isBusy, setIsBusy] = useState(false);
  const upload = async (file: File) => {
    setIsBusy(true);
    setFailure(null);
    try {
      const { edits } = await sendPhoto(unitId, file, newId());
      if (edits.length > 0) await applyNews({ mutate, cache }, { unitId, edits });
    } catch (error) {
      setFailure(`${(error as Error).message} The photo was not added; choose it again.`);
    } finally {
      setIsBusy(false);
    }
  };
  return { upload, failure, isBusy };
}
