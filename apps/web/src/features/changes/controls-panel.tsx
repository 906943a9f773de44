import { controlState, formatPlain, seenParts, type ControlState, type LayerPart } from '@zemble/core';
import { Button, Input, Slider, Switch } from 'antd';
import { memo, useCallback, useEffect, useRef, useState } from 'react';
import { unitAct } from '../../api/unit-act.ts';
import { OneOf } from '../../ui/one-of.tsx';
import { AS_DRAWN, useTrial, type Controls } from '../../unit/trial.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { SettingRanges } from './setting-ranges.tsx';
import styles from './changes.module.css';

const PER_CENT = 100;

/** Knobs and switches of the unit: turned here, everything follows; where they stand can be stored under a name. */
export const ControlsPanel = memo(function ControlsPanel() {
  const { tried, controls, setControls } = useTrial();
  const parts = seenParts(tried.circuit, 'planned').flatMap(({ part, fate }) =>
    fate !== 'removed' && part.kind !== 'fuse' && part.kind !== 'jumper' && controlState(part) !== undefined
      ? [part]
      : [],
  );
  const latest = useRef(controls);
  useEffect(() => {
    latest.current = controls;
  });
  const turn = useCallback(
    (ref: string, state: ControlState) => setControls({ ...latest.current, [ref]: state }),
    [setControls],
  );
  if (parts.length === 0) return null;
  return (
    <section className="zb-block" aria-label="Controls">
      <div className={styles.head}>
        <h2>Controls</h2>
        <span className="zb-dim">
          {Object.keys(controls).length === 0 ? 'as drawn' : 'turned; the drawing keeps its positions'}
        </span>
      </div>
      <Settings parts={parts} />
      <SettingRanges />
      <ul className={styles.controls}>
        {parts.map((part) => (
          <Control
            key={part.ref}
            refName={part.ref}
            isJack={part.kind === 'jack'}
            state={controlState(part)!}
            onTurn={turn}
          />
        ))}
      </ul>
    </section>
  );
});

interface ControlProps {
  readonly refName: string;
  readonly isJack: boolean;
  readonly state: ControlState;
  readonly onTurn: (ref: string, state: ControlState) => void;
}

/** One knob or switch; drawn anew only when it stands elsewhere. */
const Control = memo(function Control({ refName, isJack, state, onTurn }: ControlProps) {
  const turn = (next: ControlState) => onTurn(refName, next);
  const [on, off] = isJack ? ['plug in', 'no plug'] : ['closed', 'open'];
  return (
    <li>
      <span className="zb-ref">{refName}</span>
      {typeof state === 'number' ? (
        <>
          <Slider
            className={styles.slider ?? ''}
            ariaLabelForHandle={`Travel of ${refName}`}
            min={0}
            max={1}
            step={0.01}
            value={state}
            onChange={turn}
            tooltip={{ formatter: null }}
          />
          <span className="zb-number">{formatPlain(PER_CENT * state, 3)} %</span>
        </>
      ) : typeof state === 'string' ? (
        <OneOf label={`Position of ${refName}`} options={['a', 'b', 'open']} value={state} onChange={turn} />
      ) : (
        <>
          <Switch size="small" aria-label={`${refName} ${on}`} checked={state} onChange={turn} />
          <span>{state ? on : off}</span>
        </>
      )}
    </li>
  );
});

/** Positions that were stored: one press puts every control there. */
function Settings({ parts }: { parts: readonly LayerPart[] }) {
  const { unit, change } = useUnitContext();
  const { controls, setControls } = useTrial();
  const [name, setName] = useState<string | null>(null);
  const { settings } = unit;
  const keep = () => {
    const wanted = name?.trim() ?? '';
    setName(null);
    if (wanted === '') return;
    const now = Object.fromEntries(parts.map((p) => [p.ref, controlState(p)!]));
    const taken = new Set(settings.map((s) => s.id));
    let id = wanted.toLowerCase().replace(/[^a-z0-9]+/g, '-') || 'setting';
    while (taken.has(id)) id = `${id}-2`;
    const same = settings.find((s) => (s.name ?? s.id) === wanted);
    const next = same
      ? settings.map((s) => (s === same ? { ...s, controls: now } : s))
      : [...settings, { id, name: wanted, controls: now }];
    change(unitAct(unit, { settings: next }));
  };
  const isAt = (wanted: Controls) =>
    Object.entries(wanted).every(([ref, state]) => {
      const part = parts.find((p) => p.ref === ref);
      return part !== undefined && controlState(part) === state;
    });
  return (
    <div className={styles.sets} role="group" aria-label="Settings">
      <Button size="small" type="text" disabled={controls === AS_DRAWN} onClick={() => setControls(AS_DRAWN)}>
        As drawn
      </Button>
      {settings.map((s) => (
        <span key={s.id} className={isAt(s.controls) ? styles.setActive : styles.set}>
          <button className="zb-link" aria-pressed={isAt(s.controls)} onClick={() => setControls(s.controls)}>
            {s.name ?? s.id}
          </button>
          <button
            className="zb-icon"
            aria-label={`Drop the setting ${s.name ?? s.id}`}
            onClick={() => change(unitAct(unit, { settings: settings.filter((each) => each.id !== s.id) }))}
          >
            ×
          </button>
        </span>
      ))}
      {name === null ? (
        <Button size="small" type="text" onClick={() => setName('')}>
          Keep as a setting
        </Button>
      ) : (
        <Input
          autoFocus
          size="small"
          style={{ width: 160 }}
          aria-label="Name of the setting"
          placeholder="Slow, all at noon, …"
          value={name}
          maxLength={60}
          onChange={(event) => setName(event.target.value)}
          onPressEnter={keep}
          onKeyDown={(event) => event.key === 'Escape' && setName(null)}
          onBlur={keep}
        />
      )}
    </div>
  );
}
