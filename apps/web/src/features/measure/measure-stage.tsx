import { cautionsOf } from '@halfsplit/core';
import { Button, Checkbox, Input, Segmented, Select } from 'antd';
import { useEffect, useMemo, useState } from 'react';
import { useUnitContext } from '../../app/unit-context.tsx';
import { ToneMark, VerdictMark } from '../../ui/marks.tsx';
import { CircuitPanel } from '../circuit/index.ts';
import { CsvButtons } from './csv-buttons.tsx';
import { FromChange } from './from-change.tsx';
import { HarmPanel } from './harm-panel.tsx';
import { measuredVolts } from './measured-volts.ts';
import { valueWords } from './part-words.ts';
import { ReadingField } from './reading-field.tsx';
import { ReadingsTable } from './readings-table.tsx';
import { ORDERS, repeated, type MeasuredPart, type Order } from './run.ts';
import { setSpeaks, speak, speaks } from './speak.ts';
import { useRun, type LastVerdict } from './use-run.ts';
import { Voltages } from './voltages.tsx';

/** A run through the parts with one hand on the probe: type the reading, Enter, next. */
export function MeasureStage() {
  const { unit, document } = useUnitContext();
  const measured = useMemo(() => measuredVolts(unit, document), [unit, document]);
  return (
    <div className="hs-split">
      <MeasuringRun />
      <CircuitPanel measured={measured} />
    </div>
  );
}

const VIEWS = ['Run', 'Does it matter', 'Voltages'] as const;
type View = (typeof VIEWS)[number];
const OUT = ['high', 'low', 'open', 'short'];
const SHOWN_CAUTIONS = 2;

function MeasuringRun() {
  const { unit, selectRef } = useUnitContext();
  const run = useRun();
  const [view, setView] = useState<View>('Run');
  const [isSpoken, setIsSpoken] = useState(speaks);
  const { current, parts } = run;
  // The field stays when the run is done: what has a name can still be entered.
  const subject = current ?? parts[0];
  const inRun = parts.filter((p) => p.isInRun);
  const measured = inRun.filter((p) => p.reading).length;
  const out = parts.filter((p) =>
    [p.verdict, ...p.aspects.map((a) => a.verdict)].some((v) => v && OUT.includes(v.kind)),
  ).length;
  const cautions = cautionsOf(unit.hazards.filter((h) => h !== 'battery only')).slice(0, SHOWN_CAUTIONS);
  const sentence = run.last && sentenceOf(run.last);
  useEffect(() => {
    if (sentence !== null) speak(sentence);
  }, [sentence]);
  return (
    <section className="hs-panel hs-sheet" aria-label="Readings">
      <header className="hs-panel-head">
        <h2>Readings</h2>
        <span className="hs-dim">
          {measured} of {inRun.length} parts{out > 0 ? ` · ${out} out` : ''}
        </span>
        <span className="hs-grow" />
        <FromChange />
        <CsvButtons />
      </header>
      {cautions.map((c) => (
        <p key={c} className="hs-caution">
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
        />
      )}
      {run.last && (
        <p className="hs-last-verdict" role="status">
          {headOf(run.last)}: <VerdictMark kind={run.last.verdict.kind} words={run.last.verdict.sentence} />
          {run.last.aspect === null && <Again measured={run.last.measured} />}
        </p>
      )}
      {run.told !== null && (
        <p className="hs-last-verdict" role="status">
          {run.told.tone && <ToneMark tone={run.told.tone} />} {run.told.sentence}
        </p>
      )}
      <div className="hs-tests-head">
        <Segmented<View>
          size="small"
          options={[...VIEWS]}
          value={view}
          onChange={setView}
          aria-label="What is listed"
        />
        {view === 'Run' && (
          <Select<Order>
            size="small"
            value={run.order}
            options={ORDERS.map((value) => ({ value }))}
            onChange={run.setOrder}
            aria-label="Order of the run"
            popupMatchSelectWidth={false}
          />
        )}
        <Input
          size="small"
          className="hs-instrument"
          value={run.instrument}
          placeholder="instrument"
          aria-label="Instrument"
          onChange={(e) => run.setInstrument(e.target.value)}
        />
        <Checkbox
          checked={isSpoken}
          onChange={(e) => {
            setSpeaks(e.target.checked);
            setIsSpoken(e.target.checked);
          }}
        >
          read out
        </Checkbox>
      </div>
      {view === 'Run' && (
        <ReadingsTable
          parts={parts}
          isOrdered={run.order !== 'as typed'}
          currentRef={current?.part.ref ?? null}
          onSelect={selectRef}
        />
      )}
      {view === 'Does it matter' && <HarmPanel />}
      {view === 'Voltages' && <Voltages onChoose={(net) => run.type(`${net} `)} />}
    </section>
  );
}

const headOf = ({ measured, aspect }: LastVerdict) =>
  aspect === null ? measured.part.ref : `${measured.part.ref} ${aspect}`;
const sentenceOf = (last: LastVerdict) => `${headOf(last)}: ${last.verdict.sentence}`;

/** Repeated readings of one part under one condition. */
function Again({ measured }: { measured: MeasuredPart }) {
  const { unit } = useUnitContext();
  const found = repeated(
    unit.readings.filter((r) => r.partId === measured.resource.id && !r.withdrawn && r.aspect === null),
  );
  if (!found) return null;
  const text = (value: number) => valueWords(measured.part, value);
  return (
    <span className="hs-dim">
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
