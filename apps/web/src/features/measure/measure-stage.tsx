import { cautionsOf } from '@zemble/core';
import { Button, Input, Select } from 'antd';
import { memo, useDeferredValue, useEffect, useMemo, useState } from 'react';
import { LaterUnit } from '../../unit/later-unit.tsx';
import { useSelection } from '../../unit/selection.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { OneOf } from '../../ui/one-of.tsx';
import { ToneMark, VerdictMark } from '../../ui/marks.tsx';
import { LegOut } from '../changes/index.ts';
import { CircuitPanel } from '../circuit/index.ts';
import { HarmPanel } from './harm-panel.tsx';
import { PhotoVoltagesPanel } from './photo-voltages-panel.tsx';
import { MoreMenu } from './more-menu.tsx';
import { valueWords } from './part-words.ts';
import { QuestionLine } from './question-line.tsx';
import { ReadingField } from './reading-field.tsx';
import { ReadingsTable } from './readings-table.tsx';
import { ORDERS, repeated, type MeasuredPart, type Order } from './measured-parts.ts';
import { setSpeaks, speak, speaks } from './speak.ts';
import { useRun, type LastVerdict } from './use-run.ts';
import { useVolts, type Volts } from './use-volts.ts';
import { Voltages } from './voltages.tsx';
import styles from './measure.module.css';

const LaterCircuit = memo(CircuitPanel);
const LaterMenu = memo(MoreMenu);
const LaterTable = memo(ReadingsTable);
const SIDES = ['Circuit', 'Board'] as const;
type Side = (typeof SIDES)[number];

/** A run through the parts with one hand on the probe: type the reading, Enter, next. */
export function MeasureStage() {
  const { unit } = useUnitContext();
  const volts = useVolts();
  const later = useDeferredValue(volts);
  const run = useRun(volts.shown);
  const [side, setSide] = useState<Side>('Circuit');
  const hasBoard = unit.photos.length > 0;
  const switcher = useMemo(
    () => hasBoard && <OneOf label="Circuit or board" options={SIDES} value={side} onChange={setSide} />,
    [hasBoard, side],
  );
  return (
    <div className="zb-split">
      <MeasuringRun run={run} volts={volts} />
      {hasBoard && side === 'Board' ? (
        <PhotoVoltagesPanel volts={volts} onChoose={(net) => run.type(`${net} `)} switcher={switcher} />
      ) : (
        <LaterUnit>
          <LaterCircuit measured={later.seen} shown={later.shown} switcher={switcher} />
        </LaterUnit>
      )}
    </div>
  );
}

const VIEWS = ['Run', 'Does it matter', 'Voltages'] as const;
type View = (typeof VIEWS)[number];
const OUT = ['high', 'low', 'open', 'short'];
const SHOWN_CAUTIONS = 2;

function MeasuringRun({ run, volts }: { run: ReturnType<typeof useRun>; volts: Volts }) {
  const { unit } = useUnitContext();
  const { selectRef } = useSelection();
  const [view, setView] = useState<View>('Run');
  const [isSpoken, setIsSpoken] = useState(speaks);
  const { current, parts } = run;
  // The field stays when the run is done: what has a name can still be entered.
  const subject = current ?? parts[0];
  const laterParts = useDeferredValue(parts);
  const laterRef = useDeferredValue(current?.part.ref ?? null);
  const inRun = parts.filter((p) => p.isInRun);
  const measured = inRun.filter((p) => p.reading).length;
  const out = parts.filter((p) =>
    [p.verdict, ...p.aspects.map((a) => a.verdict)].some((v) => v && OUT.includes(v.kind)),
  ).length;
  const cautions = cautionsOf(unit.hazards.filter((h) => h !== 'battery only')).slice(0, SHOWN_CAUTIONS);
  const sentence = run.last && sentenceOf(run.last);
  useEffect(() => setSpeaks(isSpoken), [isSpoken]);
  useEffect(() => {
    if (sentence !== null) speak(sentence);
  }, [sentence]);
  return (
    <section className="zb-panel zb-sheet" aria-label="Readings">
      <header className="zb-panel-head">
        <h2>Readings</h2>
        <span className="zb-dim">
          {measured} of {inRun.length} parts{out > 0 ? ` · ${out} out` : ''}
        </span>
        <span className="zb-grow" />
        <LaterMenu unitId={unit.id} isSpoken={isSpoken} onSpoken={setIsSpoken} />
      </header>
      {cautions.map((c) => (
        <p key={c} className="zb-caution">
          {c}
        </p>
      ))}
      {!current && <RunEnd hasParts={parts.length > 0} hasSkipped={run.hasSkipped} onAgain={run.unskip} />}
      {subject && (
        <ReadingField
          subject={subject}
          text={run.draft}
          onText={run.type}
          condition={run.condition}
          onCondition={run.setCondition}
          onEnter={run.enter}
          onSkip={run.skip}
          onStep={run.step}
          onAnswer={run.question ? run.answer : undefined}
        />
      )}
      {/* There before its words are: what comes into it is read out. */}
      <div role="status">
        {run.last && (
          <p className={styles.lastVerdict}>
            {headOf(run.last)}: <VerdictMark kind={run.last.verdict.kind} words={run.last.verdict.sentence} />
            {run.last.aspect === null && <Again measured={run.last.measured} />}
          </p>
        )}
        {run.last?.measured.reading?.condition === 'leg lifted' && <LegOut part={run.last.measured.part} />}
        {run.told !== null && (
          <p className={styles.lastVerdict}>
            {run.told.tone && <ToneMark tone={run.told.tone} />} {run.told.sentence}
          </p>
        )}
      </div>
      {run.question && <QuestionLine question={run.question} onAnswer={run.answer} />}
      <Tools
        view={view}
        onView={setView}
        order={run.order}
        onOrder={run.setOrder}
        instrument={run.instrument}
        onInstrument={run.setInstrument}
      />
      {view === 'Run' && (
        <LaterTable
          parts={laterParts}
          isOrdered={run.order !== 'as typed'}
          currentRef={laterRef}
          onSelect={selectRef}
        />
      )}
      {view === 'Does it matter' && <HarmPanel harm={run.harm} />}
      {view === 'Voltages' && <Voltages volts={volts} onChoose={(net) => run.type(`${net} `)} />}
    </section>
  );
}

interface ToolsProps {
  readonly view: View;
  readonly onView: (view: View) => void;
  readonly order: Order;
  readonly onOrder: (order: Order) => void;
  readonly instrument: string;
  readonly onInstrument: (instrument: string) => void;
}

/** What is listed, in which order, and with which instrument it is measured. */
const Tools = memo(function Tools({ view, onView, order, onOrder, instrument, onInstrument }: ToolsProps) {
  return (
    <div className="zb-tests-head">
      <OneOf label="What is listed" options={VIEWS} value={view} onChange={onView} />
      {view === 'Run' && (
        <Select<Order>
          size="small"
          value={order}
          options={ORDERS.map((value) => ({ value }))}
          onChange={onOrder}
          aria-label="Order of the run"
          popupMatchSelectWidth={false}
        />
      )}
      <Input
        size="small"
        className={styles.instrument}
        value={instrument}
        placeholder="instrument"
        aria-label="Instrument"
        onChange={(e) => onInstrument(e.target.value)}
      />
    </div>
  );
});

const headOf = ({ measured, aspect }: LastVerdict) =>
  aspect === null ? measured.part.ref : `${measured.part.ref} ${aspect}`;
const sentenceOf = (last: LastVerdict) => `${headOf(last)}: ${last.verdict.sentence}`;

/** Repeated readings of one part under one condition. */
function Again({ measured }: { measured: MeasuredPart }) {
  const found = repeated(measured.place.readings.filter((r) => r.aspect === null));
  if (!found) return null;
  const text = (value: number) => valueWords(measured.part, value);
  return (
    <span className="zb-dim">
      {' '}
      · {found.count} readings, mean {text(found.mean)}, spread {text(found.spread)}
    </span>
  );
}

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
      <p className="zb-empty-words">Type the parts in Trace first; then each is measured here in turn.</p>
    );
  return (
    <p className="zb-empty-words">
      {hasSkipped ? 'Every part is measured or skipped. ' : 'Every part is measured. '}
      {hasSkipped && <Button onClick={onAgain}>Go through the skipped ones</Button>} Choose a row to measure a
      part again.
    </p>
  );
}
