import type { Panel, UnitResource } from '@zemble/contract';
import {
  checkFit,
  freePlaces,
  parsePanelLine,
  resolveLayer,
  standingUnder,
  type FitProblem,
} from '@zemble/core';
import { DeleteOutlined } from '@ant-design/icons';
import { Button, Popconfirm, Select } from 'antd';
import { useMemo, useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { unitAct } from '../../api/unit-act.ts';
import { LineEntry } from '../../ui/line-entry.tsx';
import { NumberField } from '../../ui/number-field.tsx';
import { ToneMark } from '../../ui/marks.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import styles from './fit.module.css';
import { nameOf, PanelFigure } from './panel-figure.tsx';

const BLANK: Omit<Panel, 'id'> = { widthMm: 120, heightMm: 80, gapMm: 30, controls: [], obstacles: [] };

/** A lid or panel with its controls over what stands under it: looked at before anything is drilled. */
/** An id that nothing has yet: "c3". */
function freeId(taken: readonly { readonly id: string }[], stem: string): string {
  let n = 1;
  while (taken.some((t) => t.id === `${stem}${n}`)) n += 1;
  return `${stem}${n}`;
}

/** What has a name of its own stands on a panel once: typed again, it moves. */
function placed<T extends { readonly ref?: string | undefined; readonly name?: string | undefined }>(
  there: readonly (T & { readonly id: string })[],
  typed: T,
  stem: string,
): (T & { readonly id: string })[] {
  const same = there.find((t) => (t.ref ?? t.name) === (typed.ref ?? typed.name));
  if (same) return there.map((t) => (t === same ? { ...typed, id: same.id } : t));
  return [...there, { ...typed, id: freeId(there, stem) }];
}

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
  const problems = useMemo(
    () => (panel ? checkFit(panel, standing, unit.boards) : []),
    [panel, standing, unit.boards],
  );
  const write = (next: readonly Panel[]) => change(unitAct(unit, { panels: next as UnitResource['panels'] }));
  const keep = (next: Panel) => {
    setDragged(null);
    setId(next.id);
    write(
      panels.some((p) => p.id === next.id)
        ? panels.map((p) => (p.id === next.id ? next : p))
        : [...panels, next],
    );
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
    <div className="zb-split">
      <section className="zb-panel zb-sheet" aria-label="Fit sheet">
        <header className="zb-panel-head">
          {tabs}
          <span className="zb-grow" />
          {panel && (
            <Link to={`/units/${unit.id}/print/panel/${encodeURIComponent(panel.id)}`} target="_blank">
              Template 1:1
            </Link>
          )}
        </header>
        <div className="zb-scroll" tabIndex={0} role="group" aria-label="Fit sheet, scrolls">
          <div className="zb-block">
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
              <p className="zb-dim">
                Its size, its controls and what stands under it: what meets, and by how much, before a hole is
                drilled.
              </p>
            )}
          </div>
          {panel && <Sizes panel={panel} onKeep={keep} />}
          {panel && (
            <LineEntry
              label="A control, or something tall under the panel"
              placeholder="SW1 40 20   or   T1 90 40 body 50x40 tall 35"
              onEnter={(line) => {
                const read = parsePanelLine(line, circuit.parts);
                if (!read.ok) return read.why;
                if ('control' in read)
                  keep({ ...panel, controls: placed(panel.controls, read.control, 'c') });
                else keep({ ...panel, obstacles: placed(panel.obstacles ?? [], read.obstacle, 'o') });
                return null;
              }}
            />
          )}
          {panel && <Verdict panel={panel} problems={problems} />}
          {panel && <Things panel={panel} freeFor={freeFor} onFree={setFreeFor} onKeep={keep} />}
        </div>
      </section>
      <section className="zb-panel" aria-label="Panel">
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
      <NumberField
        size="small"
        min={1}
        max={2000}
        value={panel[key]}
        onDone={(value) => value !== null && onKeep({ ...panel, [key]: value })}
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
    <div className={`zb-block ${styles.form}`}>
      {size('widthMm', 'width')}
      {size('heightMm', 'height')}
      {size('gapMm', 'over the board')}
      <span className="zb-dim">mm</span>
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

function Verdict({ panel, problems }: { readonly panel: Panel; readonly problems: readonly FitProblem[] }) {
  return (
    <div className="zb-block" role="status">
      {panel.controls.length === 0 ? (
        <p className="zb-dim">
          No control is on it yet. Places are in millimetres from its upper left corner.
        </p>
      ) : problems.length === 0 ? (
        <p>
          <ToneMark tone="in" /> It fits: nothing meets, and 2 mm of air are left everywhere.
        </p>
      ) : (
        <ul>
          {/* What meets comes before what is only close. */}
          {[...problems]
            .sort((a, b) => Number(a.code === 'close') - Number(b.code === 'close'))
            .map((p) => (
              <li key={p.message} className={p.code === 'close' ? 'zb-edge' : 'zb-out'}>
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

function Things({ panel, freeFor, onFree, onKeep }: ThingsProps) {
  return (
    <ul className={styles.things}>
      {panel.controls.map((c) => (
        <li key={c.id}>
          <strong className="zb-mono">{nameOf(c)}</strong>
          <span className="zb-grow">
            at {c.at.x}, {c.at.y} mm; hole {c.holeMm}, body {c.lengthMm} by {c.widthMm}, {c.depthMm} deep
          </span>
          <button
            className="zb-link"
            aria-pressed={freeFor === c.id}
            onClick={() => onFree(freeFor === c.id ? null : c.id)}
          >
            {freeFor === c.id ? 'Hide free places' : 'Free places'}
          </button>
          <button
            className="zb-icon"
            aria-label={`Take ${nameOf(c)} off the panel`}
            onClick={() => onKeep({ ...panel, controls: panel.controls.filter((o) => o !== c) })}
          >
            <DeleteOutlined aria-hidden />
          </button>
        </li>
      ))}
      {(panel.obstacles ?? []).map((o) => (
        <li key={o.id}>
          <strong className="zb-mono">{nameOf(o)}</strong>
          <span className="zb-grow">
            under it at {o.at.x}, {o.at.y} mm; {o.lengthMm} by {o.widthMm}, {o.heightMm} mm high
          </span>
          <button
            className="zb-icon"
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
