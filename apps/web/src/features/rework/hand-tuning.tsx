import type { Layer, PartKind } from '@zemble/contract';
import {
  canChange,
  formatQuantity,
  KINDS,
  QUANTITY_KINDS,
  seenParts,
  stepPreferred,
  type ESeries,
  plannedRefs,
} from '@zemble/core';
import { Button, Select } from 'antd';
import { memo, useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { useSelection } from '../../unit/selection.tsx';
import { useTrial } from '../../unit/trial.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { Keys } from '../../ui/keys.tsx';
import { LayerMark } from '../../ui/marks.tsx';
import styles from './rework.module.css';

interface HandTuningProps {
  readonly onTurn: (ref: string, value: number) => void;
  readonly onPlan: () => void;
  readonly onDrop: () => void;
  readonly onClear: (ref: string) => void;
}

/** Every value that can be turned, click by click along a series, with everything on screen following. */
export const HandTuning = memo(function HandTuning({ onTurn, onPlan, onDrop, onClear }: HandTuningProps) {
  const { selectedRef, selectRef } = useSelection();
  const { trial, tried } = useTrial();
  const [series, setSeries] = useState<ESeries>('E12');
  const planned = plannedRefs(useUnitContext().unit);
  const seen = seenParts(tried.circuit, 'planned').filter((s) => s.fate !== 'removed' && canChange(s.part));
  return (
    <div className="zb-block">
      <div className={`zb-panel-head ${styles.flush}`}>
        <h2>Turn by hand</h2>
        <SeriesChoice series={series} onSeries={setSeries} />
        <span className="zb-dim">
          <Keys keys="↑ ↓" /> or the wheel
        </span>
        <span className="zb-grow" />
        <TrialButtons count={trial.size} onDrop={onDrop} onPlan={onPlan} />
      </div>
      <ul className={styles.dials}>
        {seen.map(({ part, from }) => (
          <Dial
            key={part.ref}
            refName={part.ref}
            kind={part.kind}
            value={typeof part.value === 'number' ? part.value : null}
            from={from}
            isPlanned={planned.has(part.ref)}
            series={series}
            isTried={trial.has(part.ref)}
            isSelected={part.ref === selectedRef}
            onFocus={selectRef}
            onTurn={onTurn}
            onClear={onClear}
          />
        ))}
      </ul>
    </div>
  );
});

interface TrialButtonsProps {
  readonly count: number;
  readonly onDrop: () => void;
  readonly onPlan: () => void;
}

const TrialButtons = memo(function TrialButtons({ count, onDrop, onPlan }: TrialButtonsProps) {
  if (count === 0) return null;
  return (
    <>
      <Button onClick={onDrop}>Drop</Button>
      <Button type="primary" onClick={onPlan}>
        Plan {count === 1 ? 'this value' : `these ${count} values`}
      </Button>
    </>
  );
});

const SERIES = (['E6', 'E12', 'E24', 'E96'] as const).map((value) => ({ value }));

const SeriesChoice = memo(function SeriesChoice({
  series,
  onSeries,
}: {
  readonly series: ESeries;
  readonly onSeries: (series: ESeries) => void;
}) {
  return <Select aria-label="Series to turn along" value={series} onChange={onSeries} options={SERIES} />;
});

/** A dial's position as readers of the page get it: hundredths of a decade; the text says the value. */
const HUNDREDTHS = 100;

interface DialProps {
  readonly refName: string;
  readonly kind: PartKind;
  readonly value: number | null;
  /** The layer that the value is of. */
  readonly from: Layer | null;
  readonly isPlanned: boolean;
  readonly series: ESeries;
  readonly isTried: boolean;
  readonly isSelected: boolean;
  readonly onFocus: (ref: string) => void;
  readonly onTurn: (ref: string, value: number) => void;
  readonly onClear: (ref: string) => void;
}

const Dial = memo(function Dial(props: DialProps) {
  const { refName, kind, value, from, isPlanned, series, isTried, isSelected, onFocus, onTurn, onClear } =
    props;
  const dial = useRef<HTMLDivElement>(null);
  const turn = (clicks: number) => {
    if (value !== null) onTurn(refName, stepPreferred(value, clicks, series));
  };
  const turnLatest = useRef(turn);
  useEffect(() => {
    turnLatest.current = turn;
  });
  useEffect(() => {
    const element = dial.current;
    // A wheel listener of React cannot keep the page from scrolling.
    const onWheel = (event: WheelEvent) => {
      if (document.activeElement !== element) return;
      event.preventDefault();
      turnLatest.current(event.deltaY < 0 ? 1 : -1);
    };
    element?.addEventListener('wheel', onWheel, { passive: false });
    return () => element?.removeEventListener('wheel', onWheel);
  }, []);
  const onKey = (event: KeyboardEvent) => {
    const clicks = { ArrowUp: 1, ArrowDown: -1, PageUp: 4, PageDown: -4 }[event.key];
    if (clicks === undefined) return;
    event.preventDefault();
    turn(clicks);
  };
  const unit = QUANTITY_KINDS[KINDS[kind].value ?? 'number'];
  const text = formatQuantity(value, unit, { digits: 4 });
  return (
    <li className={`${styles.dial}${isSelected ? ` ${styles.dialSelected}` : ''}`}>
      <div
        ref={dial}
        role="spinbutton"
        tabIndex={0}
        aria-label={`Value of ${refName}`}
        aria-valuenow={Math.round(HUNDREDTHS * Math.log10(value ?? 1))}
        aria-valuetext={text}
        onKeyDown={onKey}
        onFocus={() => onFocus(refName)}
        className={styles.dialValue}
      >
        <span className="zb-ref">{refName}</span>
        <span
          className="zb-number"
          style={from ? { color: `var(--zb-${isTried ? 'planned' : from})` } : undefined}
        >
          {from && <LayerMark layer={isTried ? 'planned' : from} size={9} />} {text}
        </span>
      </div>
      {!isTried && isPlanned && (
        <button
          className="zb-icon"
          onClick={() => onClear(refName)}
          aria-label={`Drop the plan for ${refName}`}
          title="Drop the plan"
        >
          ×
        </button>
      )}
    </li>
  );
});
