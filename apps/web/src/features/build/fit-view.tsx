import type { Panel, PanelControl, UnitResource } from '@halfsplit/contract';
import {
  checkFit,
  freePlaces,
  parsePanelLine,
  resolveLayer,
  standingUnder,
  type FitProblem,
  type Polygon,
} from '@halfsplit/core';
import { DeleteOutlined } from '@ant-design/icons';
import { Button, InputNumber, Popconfirm, Select } from 'antd';
import { useMemo, useRef, useState, type PointerEvent, type ReactNode } from 'react';
import { Link } from 'react-router';
import { photoUrl } from '../../api/client.ts';
import { unitChange } from '../../api/change.ts';
import { ToneMark } from '../../ui/marks.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import styles from './fit.module.css';

const BLANK: Omit<Panel, 'id'> = { widthMm: 120, heightMm: 80, gapMm: 30, controls: [], obstacles: [] };

/** A lid or panel with its controls over what stands under it: looked at before anything is drilled. */
export function FitView({ tabs }: { readonly tabs: ReactNode }) {
  const { unit, document, change } = useUnitContext();
  const [id, setId] = useState<string | null>(null);
  const [dragged, setDragged] = useState<Panel | null>(null);
  const [freeFor, setFreeFor] = useState<string | null>(null);
  const circuit = useMemo(() => resolveLayer(document.circuit, 'planned'), [document.circuit]);
  const panels = unit.panels;
  const kept = panels.find((p) => p.id === id) ?? panels[0];
  const panel = dragged ?? kept;
  const standing = useMemo(
    () => (panel ? standingUnder(panel, unit.boards, circuit) : []),
    [panel, unit.boards, circuit],
  );
  const problems = useMemo(() => (panel ? checkFit(panel, standing) : []), [panel, standing]);
  const write = (next: readonly Panel[]) =>
    change(unitChange(unit, { panels: next as UnitResource['panels'] }));
  const keep = (next: Panel) => {
    setDragged(null);
    setId(next.id);
    write(
      panels.some((p) => p.id === next.id)
        ? panels.map((p) => (p.id === next.id ? next : p))
        : [...panels, next],
    );
  };
  const freeId = (taken: readonly { readonly id: string }[], stem: string) => {
    for (let n = 1; ; n += 1) if (!taken.some((t) => t.id === `${stem}${n}`)) return `${stem}${n}`;
  };
  const chosen = panel?.controls.find((c) => c.id === freeFor);
  const free = useMemo(
    () =>
      panel && chosen
        ? freePlaces({ ...panel, controls: panel.controls.filter((c) => c !== chosen) }, standing, chosen)
        : [],
    [panel, chosen, standing],
  );
  return (
    <div className="hs-split">
      <section className="hs-panel hs-sheet" aria-label="Fit sheet">
        <header className="hs-panel-head">
          {tabs}
          <span className="hs-grow" />
          {panel && (
            <Link to={`/units/${unit.id}/print/panel/${encodeURIComponent(panel.id)}`} target="_blank">
              Template 1:1
            </Link>
          )}
        </header>
        <div className="hs-scroll" tabIndex={0} role="group" aria-label="Fit sheet, scrolls">
          <div className="hs-block">
            {panel && (
              <div className={styles.form}>
                <Select
                  size="small"
                  value={panel.id}
                  onChange={setId}
                  options={panels.map((p) => ({ value: p.id, label: p.name ?? p.id }))}
                  aria-label="Which panel"
                />
                <Popconfirm
                  title="Take this panel out of the record?"
                  okText="Take it out"
                  cancelText="Keep it"
                  onConfirm={() => write(panels.filter((p) => p.id !== panel.id))}
                >
                  <Button size="small" type="text">
                    Take it out
                  </Button>
                </Popconfirm>
              </div>
            )}
            <Button
              type={panel ? 'default' : 'primary'}
              size={panel ? 'small' : 'middle'}
              onClick={() => keep({ ...BLANK, id: freeId(panels, 'p') })}
            >
              {panel ? 'Another panel' : 'A panel or lid'}
            </Button>
            {!panel && (
              <p className="hs-dim">
                Its size, its controls and what stands under it: what meets, and by how much, before a hole is
                drilled.
              </p>
            )}
          </div>
          {panel && <Sizes panel={panel} onKeep={keep} />}
          {panel && (
            <PanelEntry
              panel={panel}
              onAdd={(line) => {
                const read = parsePanelLine(line, circuit.parts);
                if (!read.ok) return read.why;
                if ('control' in read)
                  keep({
                    ...panel,
                    controls: [...panel.controls, { id: freeId(panel.controls, 'c'), ...read.control }],
                  });
                else {
                  const obstacles = panel.obstacles ?? [];
                  keep({
                    ...panel,
                    obstacles: [...obstacles, { id: freeId(obstacles, 'o'), ...read.obstacle }],
                  });
                }
                return null;
              }}
            />
          )}
          {panel && <Verdict panel={panel} problems={problems} />}
          {panel && <Things panel={panel} freeFor={freeFor} onFree={setFreeFor} onKeep={keep} />}
        </div>
      </section>
      <section className="hs-panel" aria-label="Panel">
        {panel && (
          <PanelFigure
            key={panel.id}
            panel={panel}
            shapes={standing}
            problems={problems}
            free={free}
            onDrag={setDragged}
            onKeep={keep}
          />
        )}
      </section>
    </div>
  );
}

/** Width, height and gap; the board and the photo under it. */
function Sizes({ panel, onKeep }: { readonly panel: Panel; readonly onKeep: (panel: Panel) => void }) {
  const { unit } = useUnitContext();
  const size = (key: 'widthMm' | 'heightMm' | 'gapMm', words: string) => (
    <label className={styles.size}>
      {words}{' '}
      <InputNumber
        size="small"
        min={1}
        max={2000}
        value={panel[key]}
        onChange={(value) => value !== null && onKeep({ ...panel, [key]: value })}
        aria-label={`${words}, mm`}
      />
    </label>
  );
  const board = (value: string) => {
    const { board: old, ...rest } = panel;
    onKeep(
      value === ''
        ? rest
        : { ...rest, board: { at: old?.at ?? { x: 20, y: 20 }, quarters: old?.quarters ?? 0, id: value } },
    );
  };
  return (
    <div className={`hs-block ${styles.form}`}>
      {size('widthMm', 'width')}
      {size('heightMm', 'height')}
      {size('gapMm', 'over the board')}
      <span className="hs-dim">mm</span>
      {unit.boards.length > 0 && (
        <Select
          size="small"
          value={panel.board?.id ?? ''}
          onChange={board}
          options={[
            { value: '', label: 'no board' },
            ...unit.boards.map((b) => ({ value: b.id, label: `board ${b.name ?? b.id}` })),
          ]}
          aria-label="Board under the panel"
        />
      )}
      {panel.board && (
        <Button
          size="small"
          onClick={() =>
            onKeep({ ...panel, board: { ...panel.board!, quarters: (panel.board!.quarters + 1) % 4 } })
          }
        >
          Turn the board
        </Button>
      )}
    </div>
  );
}

function PanelEntry({ onAdd }: { readonly panel: Panel; readonly onAdd: (line: string) => string | null }) {
  const [text, setText] = useState('');
  const [why, setWhy] = useState<string | null>(null);
  const enter = () => {
    const refused = onAdd(text);
    setWhy(refused);
    if (refused === null) setText('');
  };
  return (
    <div className={styles.entry}>
      <input
        value={text}
        onChange={(event) => {
          setText(event.target.value);
          setWhy(null);
        }}
        onKeyDown={(event) => event.key === 'Enter' && enter()}
        placeholder="SW1 40 20   or   T1 90 40 body 50x40 tall 35"
        aria-label="A control, or something tall under the panel"
        spellCheck={false}
      />
      {why !== null && (
        <p className="hs-refused" role="alert">
          {why}
        </p>
      )}
    </div>
  );
}

function Verdict({ panel, problems }: { readonly panel: Panel; readonly problems: readonly FitProblem[] }) {
  return (
    <div className="hs-block" role="status">
      {panel.controls.length === 0 ? (
        <p className="hs-dim">
          No control is on it yet. Places are in millimetres from its upper left corner.
        </p>
      ) : problems.length === 0 ? (
        <p>
          <ToneMark tone="in" /> It fits: nothing meets, and 2 mm of air are left everywhere.
        </p>
      ) : (
        <ul>
          {problems.map((p) => (
            <li key={p.message} className={p.code === 'close' ? 'hs-edge' : 'hs-problem'}>
              {p.message}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

interface ThingsProps {
  readonly panel: Panel;
  readonly freeFor: string | null;
  readonly onFree: (id: string | null) => void;
  readonly onKeep: (panel: Panel) => void;
}

const nameOf = (thing: {
  readonly id: string;
  readonly ref?: string | undefined;
  readonly name?: string | undefined;
}) => thing.name ?? thing.ref ?? thing.id;

function Things({ panel, freeFor, onFree, onKeep }: ThingsProps) {
  return (
    <ul className={styles.things}>
      {panel.controls.map((c) => (
        <li key={c.id}>
          <strong className="hs-mono">{nameOf(c)}</strong>
          <span className="hs-grow">
            at {c.at.x}, {c.at.y} mm; hole {c.holeMm}, body {c.lengthMm} by {c.widthMm}, {c.depthMm} deep
          </span>
          <button
            className="hs-link"
            aria-pressed={freeFor === c.id}
            onClick={() => onFree(freeFor === c.id ? null : c.id)}
          >
            {freeFor === c.id ? 'Hide free places' : 'Free places'}
          </button>
          <button
            className="hs-icon"
            aria-label={`Take ${nameOf(c)} off the panel`}
            onClick={() => onKeep({ ...panel, controls: panel.controls.filter((o) => o !== c) })}
          >
            <DeleteOutlined aria-hidden />
          </button>
        </li>
      ))}
      {(panel.obstacles ?? []).map((o) => (
        <li key={o.id}>
          <strong className="hs-mono">{nameOf(o)}</strong>
          <span className="hs-grow">
            under it at {o.at.x}, {o.at.y} mm; {o.lengthMm} by {o.widthMm}, {o.heightMm} mm high
          </span>
          <button
            className="hs-icon"
            aria-label={`Take ${nameOf(o)} away`}
            onClick={() => onKeep({ ...panel, obstacles: (panel.obstacles ?? []).filter((p) => p !== o) })}
          >
            <DeleteOutlined aria-hidden />
          </button>
        </li>
      ))}
    </ul>
  );
}

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
function PanelFigure({ panel, shapes, problems, free, onDrag, onKeep }: FigureProps) {
  const { unit } = useUnitContext();
  const svg = useRef<SVGSVGElement | null>(null);
  const drag = useRef<{ readonly id: string; readonly dx: number; readonly dy: number } | null>(null);
  const [scaling, setScaling] = useState<{
    readonly photoId: string;
    readonly from?: { x: number; y: number };
  } | null>(null);
  const meeting = new Set(
    problems.filter((p) => p.code !== 'close').flatMap((p) => [...p.controls, ...p.meets]),
  );
  const atMm = (event: PointerEvent) => {
    const matrix = svg.current!.getScreenCTM()!.inverse();
    const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix);
    return { x: point.x, y: point.y };
  };
  const half = (n: number) => Math.round(n * 2) / 2;
  const movedTo = (event: PointerEvent): Panel => {
    const { id, dx, dy } = drag.current!;
    const { x, y } = atMm(event);
    const at = { x: half(x - dx), y: half(y - dy) };
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
      photo: { photoId: photo.id, from: scaling.from, to: place, mm: panel.photo?.mm ?? 50 },
    });
  };
  const shown = photo && photoFrame(panel, photo);
  return (
    <>
      <header className="hs-panel-head">
        <h2>From above</h2>
        <span className="hs-grow" />
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
            <InputNumber
              size="small"
              min={1}
              max={2000}
              value={panel.photo.mm}
              onChange={(value) =>
                value !== null && onKeep({ ...panel, photo: { ...panel.photo!, mm: value } })
              }
              aria-label="Distance of the two points of the photo, mm"
            />{' '}
            mm apart
          </label>
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
              className={styles.photo}
            />
          )}
          <rect width={panel.widthMm} height={panel.heightMm} rx={2} className={styles.outline} />
          {shapes.map((s, i) => (
            <g key={i} className={meeting.has(s.name) ? styles.met : styles.under}>
              <polygon points={points(s.shape)} />
              <text x={middle(s.shape).x} y={middle(s.shape).y + 1.2} textAnchor="middle">
                {s.name} {Math.round(s.heightMm)}
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
  return { x: 0, y: 0, width: photo.width * scale, height: photo.height * scale };
}
