import type { ReadingCondition } from '@halfsplit/contract';
import {
  cautionsOf,
  formatQuantity,
  judgeReading,
  KINDS,
  QUANTITY_KINDS,
  usualTolerance,
  type Part,
} from '@halfsplit/core';
import { Button } from 'antd';
import { useEffect, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { newKey } from '../../api/client.ts';
import { useUnitContext } from '../../app/unit-context.tsx';
import { Bands } from '../../ui/bands.tsx';
import { Keys } from '../../ui/keys.tsx';
import { VerdictMark } from '../../ui/marks.tsx';
import { CircuitPanel } from '../circuit/index.ts';
import { ReadingsTable } from './readings-table.tsx';
import { readReading } from './reading-text.ts';
import { measuredParts, nextToMeasure, type MeasuredPart } from './run.ts';

/** A run through the parts with one hand on the probe: type the reading, Enter, next. */
export function MeasureStage() {
  return (
    <div className="hs-split">
      <MeasuringRun />
      <CircuitPanel />
    </div>
  );
}

function MeasuringRun() {
  const { unit, change, selectedRef, selectRef } = useUnitContext();
  const parts = useMemo(() => measuredParts(unit), [unit]);
  // A run begins with what has not been measured, whatever was selected before.
  useEffect(() => selectRef(null), [selectRef]);
  const [skipped, setSkipped] = useState<ReadonlySet<string>>(new Set());
  const [condition, setCondition] = useState<ReadingCondition>('leg lifted');
  const [last, setLast] = useState<{
    ref: string;
    value: number | 'open' | 'short';
    condition: ReadingCondition;
  } | null>(null);
  const chosen = parts.find((p) => p.part.ref === selectedRef);
  const current = chosen ?? nextToMeasure(parts, null, skipped);
  const measured = parts.filter((p) => p.reading).length;
  const out = parts.filter(
    (p) => p.verdict && ['high', 'low', 'open', 'short'].includes(p.verdict.kind),
  ).length;
  const cautions = cautionsOf(unit.hazards.filter((h) => h !== 'battery only')).slice(0, 2);

  const goOn = (ref: string, also: ReadonlySet<string>) => {
    const left = parts.map((p) => (p.part.ref === ref ? { ...p, reading: p.reading ?? PENDING } : p));
    selectRef(nextToMeasure(left, ref, also)?.part.ref ?? null);
  };
  const enter = (subject: MeasuredPart, value: number | 'open' | 'short') => {
    const { resource, part } = subject;
    change({
      type: 'add-reading',
      tempId: newKey(),
      partId: resource.id,
      seen: resource.version,
      value,
      condition,
      takenAt: new Date().toISOString(),
    });
    setLast({ ref: part.ref, value, condition });
    goOn(part.ref, skipped);
  };
  const skip = (subject: MeasuredPart) => {
    const also = new Set([...skipped, subject.part.ref]);
    setSkipped(also);
    goOn(subject.part.ref, also);
  };
  const step = (by: number) => {
    const index = parts.findIndex((p) => p === current);
    const next = parts[Math.min(parts.length - 1, Math.max(0, index + by))];
    if (next) selectRef(next.part.ref);
  };
  const lastPart = last && parts.find((p) => p.part.ref === last.ref)?.part;

  return (
    <section className="hs-panel hs-sheet" aria-label="Readings">
      <header className="hs-panel-head">
        <h2>Readings</h2>
        <span className="hs-dim">
          {measured} of {parts.length} parts{out > 0 ? ` · ${out} out` : ''}
        </span>
      </header>
      {cautions.map((c) => (
        <p key={c} className="hs-caution">
          {c}
        </p>
      ))}
      {current ? (
        <ReadingField
          key={current.part.ref}
          subject={current}
          condition={condition}
          onCondition={setCondition}
          onEnter={(value) => enter(current, value)}
          onSkip={() => skip(current)}
          onStep={step}
        />
      ) : (
        <RunEnd
          hasParts={parts.length > 0}
          hasSkipped={skipped.size > 0}
          onAgain={() => setSkipped(new Set())}
        />
      )}
      {last && lastPart && (
        <p className="hs-last-verdict" role="status">
          {last.ref}:{' '}
          <VerdictMark
            kind={judgeReading(lastPart, last).kind}
            words={judgeReading(lastPart, last).sentence}
          />
        </p>
      )}
      <ReadingsTable parts={parts} currentRef={current?.part.ref ?? null} onSelect={selectRef} />
    </section>
  );
}

/** Stands for the reading just entered, until the unit has it. */
const PENDING = {} as NonNullable<MeasuredPart['reading']>;

function RunEnd({
  hasParts,
  hasSkipped,
  onAgain,
}: {
  hasParts: boolean;
  hasSkipped: boolean;
  onAgain: () => void;
}) {
  if (!hasParts)
    return (
      <p className="hs-empty-words">Type the parts in Trace first; then each is measured here in turn.</p>
    );
  return (
    <p className="hs-empty-words">
      {hasSkipped ? 'Every part is measured or skipped. ' : 'Every part is measured. '}
      {hasSkipped && <Button onClick={onAgain}>Go through the skipped ones</Button>} Choose a row to measure a
      part again.
    </p>
  );
}

interface ReadingFieldProps {
  readonly subject: MeasuredPart;
  readonly condition: ReadingCondition;
  readonly onCondition: (condition: ReadingCondition) => void;
  readonly onEnter: (value: number | 'open' | 'short') => void;
  readonly onSkip: () => void;
  readonly onStep: (by: number) => void;
}

function ReadingField({ subject, condition, onCondition, onEnter, onSkip, onStep }: ReadingFieldProps) {
  const { part } = subject;
  const [text, setText] = useState('');
  const [isRefused, setIsRefused] = useState(false);
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => field.current?.focus(), []);
  const read = text.trim() === '' ? null : readReading(text, part);
  const verdict = read?.ok ? judgeReading(part, { value: read.value, condition }) : null;
  const toggle = () => onCondition(condition === 'in circuit' ? 'leg lifted' : 'in circuit');
  const onKey = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key === 'Enter') {
      event.preventDefault();
      if (!read) onSkip();
      else if (read.ok) onEnter(read.value);
      else setIsRefused(true);
    } else if (event.key === 'Tab' && !event.shiftKey && text !== '') {
      event.preventDefault();
      toggle();
    } else if (text === '' && (event.key === 'ArrowDown' || event.key === 'ArrowUp')) {
      event.preventDefault();
      onStep(event.key === 'ArrowDown' ? 1 : -1);
    } else if (event.key === ' ' && text === '') {
      event.preventDefault();
      toggle();
    }
  };
  return (
    <div className="hs-run">
      <div className="hs-run-part">
        <strong className="hs-run-ref">{part.ref}</strong>
        <span className="hs-run-marking">{markingOf(part)}</span>
        {part.kind === 'resistor' && typeof part.marked === 'number' && (
          <Bands ohms={part.marked} tolerance={usualTolerance(part)} />
        )}
      </div>
      <div className="hs-run-entry">
        <input
          ref={field}
          className="hs-run-field"
          value={text}
          onChange={(event) => {
            setText(event.target.value);
            setIsRefused(false);
          }}
          onKeyDown={onKey}
          aria-label={`Reading of ${part.ref}`}
          aria-invalid={isRefused}
          spellCheck={false}
          autoComplete="off"
          autoCapitalize="off"
          inputMode="text"
        />
        <button className="hs-condition" onClick={toggle} aria-pressed={condition === 'in circuit'}>
          {condition} <Keys keys="Space" />
        </button>
      </div>
      <p className={`hs-entry-note${isRefused ? ' hs-refused' : ''}`} role={isRefused ? 'alert' : undefined}>
        {!read ? (
          <>
            <Keys keys="Enter" /> takes the reading; on an empty field it skips. <Keys keys="↑ ↓" /> other
            part.
          </>
        ) : !read.ok ? (
          read.sentence
        ) : (
          <>
            <span className="hs-number">{valueWords(part, read.value)}</span>{' '}
            {verdict && <VerdictMark kind={verdict.kind} words={verdict.sentence} />}
          </>
        )}
      </p>
    </div>
  );
}

const unitOfPart = (part: Part) => QUANTITY_KINDS[KINDS[part.kind].value ?? 'number'];

export const valueWords = (part: Part, value: number | 'open' | 'short'): string =>
  typeof value === 'number' ? formatQuantity(value, unitOfPart(part), { digits: 4 }) : value;

function markingOf(part: Part): string {
  if (typeof part.marked !== 'number') return 'no marking';
  const tolerance = `±${Number((usualTolerance(part) * 100).toPrecision(2))} %`;
  return `${formatQuantity(part.marked, unitOfPart(part))} ${tolerance}`;
}
