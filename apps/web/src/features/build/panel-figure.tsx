import type { Panel, PanelControl } from '@zemble/contract';
import type { FitProblem, Polygon, standingUnder } from '@zemble/core';
import { Button, Select } from 'antd';
import { useRef, useState, type PointerEvent } from 'react';
import { NumberField } from '../../ui/number-field.tsx';
import { svgPoint } from '../../ui/svg-point.ts';
import { photoUrl } from '../../api/client.ts';
import { useUnitContext } from '../../unit/unit-context.tsx';
import styles from './fit.module.css';

/** What a control or something under the panel is called. */
export const nameOf = (thing: {
  readonly id: string;
  readonly ref?: string | undefined;
  readonly name?: string | undefined;
}) => thing.name ?? thing.ref ?? thing.id;

const points = (polygon: Polygon): string => polygon.map((p) => `${p.x},${p.y}`).join(' ');

interface FigureProps {
  readonly panel: Panel;
  readonly shapes: ReturnType<typeof standingUnder>;
  readonly problems: readonly FitProblem[];
  readonly free: readonly { readonly x: number; readonly y: number }[];
  readonly onDrag: (panel: Panel) => void;
  readonly onKeep: (panel: Panel) => void;
}

/** The panel from above, in millimetres: controls are dragged; what meets is marked; a photo lies under it by its scale. */
export function PanelFigure({ panel, shapes, problems, free, onDrag, onKeep }: FigureProps) {
  const { unit } = useUnitContext();
  const svg = useRef<SVGSVGElement | null>(null);
  /** A control, or the photo where it has no name, and where it was taken hold of. */
  const drag = useRef<{ readonly id: string | null; readonly dx: number; readonly dy: number } | null>(null);
  const [isPhotoLoose, setIsPhotoLoose] = useState(false);
  const [scaling, setScaling] = useState<{
    readonly photoId: string;
    readonly from?: { x: number; y: number };
  } | null>(null);
  const meeting = new Set(
    problems.filter((p) => p.code !== 'close').flatMap((p) => [...p.controls, ...p.meets]),
  );
  const atMm = (event: PointerEvent) => svgPoint(svg.current!, event);
  const half = (n: number) => Math.round(n * 2) / 2;
  const movedTo = (event: PointerEvent): Panel => {
    const { id, dx, dy } = drag.current!;
    const { x, y } = atMm(event);
    const at = { x: half(x - dx), y: half(y - dy) };
    if (id === null) return panel.photo ? { ...panel, photo: { ...panel.photo, at } } : panel;
    return { ...panel, controls: panel.controls.map((c): PanelControl => (c.id === id ? { ...c, at } : c)) };
  };
  const photo = unit.photos.find((p) => p.id === (scaling?.photoId ?? panel.photo?.photoId));
  const tapPhoto = (event: PointerEvent) => {
    if (!scaling || !photo) return;
    const { x, y } = atMm(event);
    const shown = photoFrame(panel, photo);
    const place = { x: (x - shown.x) / shown.width, y: (y - shown.y) / shown.height };
    if (place.x < 0 || place.y < 0 || place.x > 1 || place.y > 1) return;
    if (!scaling.from) return setScaling({ ...scaling, from: place });
    setScaling(null);
    onKeep({
      ...panel,
      photo: { ...panel.photo, photoId: photo.id, from: scaling.from, to: place, mm: panel.photo?.mm ?? 50 },
    });
  };
  const shown = photo && photoFrame(panel, photo);
  return (
    <>
      <header className="zb-panel-head">
        <h2>From above</h2>
        <span className="zb-grow" />
        {unit.photos.length > 0 && (
          <Select
            size="small"
            value={scaling?.photoId ?? panel.photo?.photoId ?? ''}
            onChange={(photoId) => {
              if (photoId !== '') return setScaling({ photoId });
              const { photo: _gone, ...rest } = panel;
              setScaling(null);
              onKeep(rest);
            }}
            options={[
              { value: '', label: 'no photo' },
              ...unit.photos.map((p) => ({ value: p.id, label: p.name })),
            ]}
            aria-label="Photo under the panel"
            popupMatchSelectWidth={false}
          />
        )}
        {panel.photo && !scaling && (
          <label className={styles.size}>
            its two points are{' '}
            <NumberField
              size="small"
              min={1}
              max={2000}
              value={panel.photo.mm}
              onDone={(value) =>
                value !== null && onKeep({ ...panel, photo: { ...panel.photo!, mm: value } })
              }
              aria-label="Distance of the two points of the photo, mm"
            />{' '}
            mm apart
          </label>
        )}
        {panel.photo && !scaling && (
          <Button size="small" aria-pressed={isPhotoLoose} onClick={() => setIsPhotoLoose(!isPhotoLoose)}>
            {isPhotoLoose ? 'Hold the photo' : 'Move the photo'}
          </Button>
        )}
      </header>
      {scaling && (
        <p className={styles.note} role="status">
          Tap {scaling.from ? 'the second' : 'the first'} of two points on the photo whose distance you know.
        </p>
      )}
      <div className={styles.canvas}>
        <svg
          ref={svg}
          viewBox={`-4 -4 ${panel.widthMm + 8} ${panel.heightMm + 8}`}
          className={styles.figure}
          role="group"
          aria-label={`Panel of ${panel.widthMm} by ${panel.heightMm} mm`}
          onPointerMove={(event) => drag.current && onDrag(movedTo(event))}
          onPointerUp={(event) => {
            if (!drag.current) return tapPhoto(event);
            const next = movedTo(event);
            drag.current = null;
            onKeep(next);
          }}
        >
          {photo && shown && (
            <image
              href={photoUrl(unit.id, photo)}
              {...shown}
              preserveAspectRatio="none"
              className={isPhotoLoose ? styles.photoLoose : styles.photo}
              onPointerDown={(event) => {
                if (!isPhotoLoose) return;
                const { x, y } = atMm(event);
                drag.current = { id: null, dx: x - shown.x, dy: y - shown.y };
                svg.current?.setPointerCapture(event.pointerId);
              }}
            />
          )}
          <rect width={panel.widthMm} height={panel.heightMm} rx={2} className={styles.outline} />
          {shapes.map((s, i) => (
            <g
              key={i}
              className={meeting.has(s.name) ? styles.met : styles.under}
              pointerEvents={isPhotoLoose ? 'none' : undefined}
            >
              <polygon points={points(s.shape)} />
              <text x={middle(s.shape).x} y={middle(s.shape).y + 0.8} textAnchor="middle">
                {s.name}
                <title>{`${s.name}, ${Math.round(s.heightMm)} mm high`}</title>
              </text>
            </g>
          ))}
          {free.map(({ x, y }) => (
            <circle key={`${x} ${y}`} cx={x} cy={y} r={0.7} className={styles.free} />
          ))}
          {panel.controls.map((c) => (
            <g
              key={c.id}
              className={meeting.has(c.id) ? styles.controlMet : styles.control}
              onPointerDown={(event) => {
                const { x, y } = atMm(event);
                drag.current = { id: c.id, dx: x - c.at.x, dy: y - c.at.y };
                svg.current?.setPointerCapture(event.pointerId);
              }}
            >
              <rect
                x={c.at.x - c.lengthMm / 2}
                y={c.at.y - c.widthMm / 2}
                width={c.lengthMm}
                height={c.widthMm}
                rx={1}
              />
              <circle cx={c.at.x} cy={c.at.y} r={c.holeMm / 2} />
              <text x={c.at.x} y={c.at.y - c.widthMm / 2 - 1} textAnchor="middle">
                {nameOf(c)}
              </text>
            </g>
          ))}
        </svg>
      </div>
    </>
  );
}

const middle = (polygon: Polygon) => ({
  x: polygon.reduce((sum, p) => sum + p.x, 0) / polygon.length,
  y: polygon.reduce((sum, p) => sum + p.y, 0) / polygon.length,
});

/** Where a photo lies on its panel, mm: by its scale where that is set, and over all of it until then. */
function photoFrame(
  panel: Panel,
  photo: { readonly id: string; readonly width: number; readonly height: number },
) {
  const { photo: set } = panel;
  if (set?.photoId !== photo.id)
    return { x: 0, y: 0, width: panel.widthMm, height: (panel.widthMm * photo.height) / photo.width };
  const pixels = Math.hypot((set.to.x - set.from.x) * photo.width, (set.to.y - set.from.y) * photo.height);
  const scale = set.mm / Math.max(pixels, 1);
  return { ...(set.at ?? { x: 0, y: 0 }), width: photo.width * scale, height: photo.height * scale };
}
