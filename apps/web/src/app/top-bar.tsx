import { ArrowLeftOutlined, WarningOutlined } from '@ant-design/icons';
import { useRef, type KeyboardEvent } from 'react';
import { Link } from 'react-router';
import { HelpButton } from '../ui/help-button.tsx';
import { LedgerButton } from '../features/changes/index.ts';
import { Keys } from '../ui/keys.tsx';
import { LayerMark } from '../ui/marks.tsx';
import { LAYER_LIST, useLayer } from '../unit/layer.tsx';
import { Saving } from '../saving/saving.tsx';
import { UnitNumber } from '../ui/unit-number.tsx';
import { ModeButton } from '../ui/mode-button.tsx';
import { openPalette } from './palette-state.ts';
import { useUnitContext } from '../unit/unit-context.tsx';
import styles from './frame.module.css';

export function TopBar() {
  const { unit } = useUnitContext();
  return (
    <header className="zb-top">
      <Link to="/" className="zb-tag" aria-label={`${unit.name}, number ${unit.number}. Back to the bench`}>
        <span className="zb-tag-hole" aria-hidden />
        <strong>{unit.name}</strong>
        <UnitNumber number={unit.number} />
      </Link>
      <Link to="/" className={styles.back}>
        <ArrowLeftOutlined aria-hidden /> Bench
      </Link>
      {unit.hazards.length > 0 && (
        <span className="zb-hazard">
          <WarningOutlined aria-hidden /> {unit.hazards.join(' · ')}
        </span>
      )}
      <span className="zb-grow" />
      <LedgerButton />
      <LayerChoice />
      <button className={styles.goto} onClick={openPalette}>
        Go to anything <Keys keys="Ctrl K" />
      </button>
      <HelpButton />
      <ModeButton />
      <Saving />
    </header>
  );
}

const STEPS: Readonly<Record<string, number>> = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 };

/** The layer shown: one stop of the keyboard, arrows choose (WAI-ARIA radio group). */
function LayerChoice() {
  const { layer, setLayer } = useLayer();
  const group = useRef<HTMLDivElement>(null);
  const onKey = (event: KeyboardEvent) => {
    const step = STEPS[event.key];
    if (step === undefined) return;
    event.preventDefault();
    const next = (LAYER_LIST.indexOf(layer) + step + LAYER_LIST.length) % LAYER_LIST.length;
    setLayer(LAYER_LIST[next]!);
    group.current?.querySelectorAll('button')[next]?.focus();
  };
  return (
    <div ref={group} className={styles.layers} role="radiogroup" aria-label="Layer shown" onKeyDown={onKey}>
      {LAYER_LIST.map((l) => (
        <button
          key={l}
          role="radio"
          aria-checked={l === layer}
          tabIndex={l === layer ? 0 : -1}
          className={styles.layer}
          onClick={() => setLayer(l)}
          style={l === layer ? { borderColor: `var(--zb-${l})` } : undefined}
        >
          <LayerMark layer={l} /> {l}
        </button>
      ))}
    </div>
  );
}
