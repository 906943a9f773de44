import {
  formatQuantity,
  meterWord,
  parseValue,
  probePlaces,
  toneHzOf,
  voltageWords,
  type NextMeasurement,
  type Quantity,
  type VoltageUnit,
} from '@zemble/core';
import { Button } from 'antd';
import { useState } from 'react';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { Keys } from '../../ui/keys.tsx';
import styles from './find.module.css';

interface Props {
  readonly ask: Quantity;
  /** The part that is read, where it is no voltage. */
  readonly reading: { readonly ref: string } | undefined;
  readonly told: NextMeasurement | undefined;
  /** What the sound circuit would show; null for overload. */
  readonly right: number | null | undefined;
  /** What was read, null for overload, and which voltage it is. */
  readonly onEnter: (value: number | null, unit: VoltageUnit) => void;
  readonly onStep: (by: number) => void;
  /** Something is being typed: this question stays, whatever is computed meanwhile. */
  readonly onBegin: () => void;
}

/** One measurement among others, the same for the same place and kind. */
export const keyOf = (q: Quantity): string =>
  q.kind === 'dcv' || q.kind === 'level' ? `${q.kind} ${q.net}` : `${q.kind} ${q.red} ${q.black}`;

const isVoltage = (q: Quantity) => q.kind === 'dcv' || q.kind === 'level';

/** What to measure next, what it tells, and the field for it. */
export function MeasureQuestion({ ask, reading, told, right, onEnter, onStep, onBegin }: Props) {
  const { unit, document } = useUnitContext();
  const [text, setText] = useState('');
  const toneHz = toneHzOf(document.circuit);
  const typed = isVoltage(ask) ? voltageWords(text) : { plain: text, unit: 'V' as const };
  const kind = ask.kind === 'ohm' ? 'resistor' : ask.kind === 'cap' ? 'capacitor' : 'voltage';
  const state = isVoltage(ask) ? null : meterWord(text);
  const parsed =
    text.trim() === '' || state !== null ? null : parseValue(typed.plain, { kind, purpose: 'reading' });
  const isReady = state !== null || parsed?.ok === true;
  const enter = () => {
    if (!isReady) return;
    // A capacitance meter at a short is over range, as at an open part an ohmmeter is.
    const atState = state === 'short' && ask.kind !== 'cap' ? 0 : null;
    const value = parsed?.ok ? parsed.readings[0].value : atState;
    onEnter(value, ask.kind === 'level' && typed.unit === 'V' ? 'Vrms' : typed.unit);
  };
  const point = isVoltage(ask) && unit.path?.testPoints?.find((t) => t.net === netOf(ask));
  const touched = probePlaces(document.circuit.parts, netOf(ask))[0]?.words;
  const again = told?.isAgain ? ', once more' : '';
  const place = point ? `${point.name ?? point.id}, net ${netOf(ask)}` : `net ${netOf(ask)}`;
  return (
    <>
      <p className={styles.questionWords}>
        {ask.kind === 'dcv' && `What is the direct voltage at ${place}${again}?`}
        {ask.kind === 'level' &&
          `With ${formatQuantity(ask.frequencyHz, 'Hz')} going in, what is its level at ${place}${again}?`}
        {!isVoltage(ask) &&
          `Switched off and discharged: what does ${reading?.ref ?? 'it'} read in circuit, the red lead at ${ask.kind === 'ohm' || ask.kind === 'cap' ? ask.red : ''}?`}
      </p>
      {touched !== undefined && isVoltage(ask) && <p>Touch {touched}.</p>}
      <p className="zb-dim">
        {told ? `It tells ${told.bits.toFixed(2)} bit: ${told.why}. ` : ''}
        {right !== undefined && (
          <>
            Right would be <span className="zb-mono">{rightWords(ask, right)}</span>, computed as marked
            {ask.kind === 'dcv' ? ' with the meter at it' : ''}.
          </>
        )}
        {ask.kind === 'dcv' && toneHz !== null && (
          <>
            {' '}
            With {formatQuantity(toneHz, 'Hz')} going in, a level counts too:{' '}
            <span className="zb-mono">240mV rms</span>.
          </>
        )}
      </p>
      <div className="zb-answers">
        <input
          className={`${styles.answerField} ${styles.answerWide}`}
          value={text}
          autoFocus
          onChange={(e) => {
            setText(e.target.value);
            onBegin();
          }}
          onKeyDown={(e) => {
            if (e.key === 'Enter') enter();
            if (text === '' && (e.key === 'ArrowDown' || e.key === 'ArrowUp')) {
              e.preventDefault();
              onStep(e.key === 'ArrowDown' ? 1 : -1);
            }
          }}
          placeholder={ask.kind === 'ohm' ? 'ohm' : ask.kind === 'cap' ? 'farad' : 'volts'}
          aria-label={
            isVoltage(ask) ? `Voltage at ${netOf(ask)}` : `Reading of ${reading?.ref ?? 'the part'}`
          }
          aria-invalid={parsed !== null && !parsed.ok}
          inputMode="decimal"
        />
        <Button type="primary" className="zb-tall" onClick={enter} disabled={!isReady}>
          Record <Keys keys="Enter" />
        </Button>
      </div>
      {parsed !== null && !parsed.ok && <p className="zb-refused">{parsed.problem.message}</p>}
    </>
  );
}

const netOf = (q: Quantity): string => (q.kind === 'dcv' || q.kind === 'level' ? q.net : q.red);

function rightWords(ask: Quantity, value: number | null): string {
  if (value === null) return 'overload';
  if (ask.kind === 'level') return `${formatQuantity(value / Math.SQRT2, 'V', { digits: 3 })} rms`;
  const unit = ask.kind === 'ohm' ? 'ohm' : ask.kind === 'cap' ? 'F' : 'V';
  return formatQuantity(value, unit, { digits: 3 });
}
