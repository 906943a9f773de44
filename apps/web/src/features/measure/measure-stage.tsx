import type { ReadingCondition } from '@halfsplit/contract';
import {
  cautionsOf,
  evidenceSentence,
  judgeEsr,
  judgeOffset,
  judgeReading,
  preparePath,
  type Entry,
  type Part,
} from '@halfsplit/core';
import { Button, Checkbox, Input, Segmented, Select } from 'antd';
import { useEffect, useMemo, useState } from 'react';
import { newKey } from '../../api/client.ts';
import { useUnitContext } from '../../app/unit-context.tsx';
import { VerdictMark } from '../../ui/marks.tsx';
import { CircuitPanel } from '../circuit/index.ts';
import { ReadingsTable } from './readings-table.tsx';
import { useHarm, useJudgements } from '../../compute/use-measuring.ts';
import { CsvButtons } from './csv-buttons.tsx';
import { HarmPanel } from './harm-panel.tsx';
import { rankBy, readingsInCircuit } from './order.ts';
import { valueWords } from './part-words.ts';
import { ReadingField } from './reading-field.tsx';
import {
  measuredParts,
  nextToMeasure,
  ordered,
  ORDERS,
  repeated,
  type MeasuredPart,
  type Order,
} from './run.ts';
import { setSpeaks, speak, speaks } from './speak.ts';
import { Voltages } from './voltages.tsx';

/** A run through the parts with one hand on the probe: type the reading, Enter, next. */
export function MeasureStage() {
  return (
    <div className="hs-split">
      <MeasuringRun />
      <CircuitPanel />
    </div>
  );
}

const VIEWS = ['Run', 'Does it matter', 'Voltages'] as const;
type View = (typeof VIEWS)[number];
const CONDITION_KEY = 'halfsplit.condition';
const INSTRUMENT_KEY = 'halfsplit.instrument';

function MeasuringRun() {
  const { unit, document, change, selectedRef, selectRef } = useUnitContext();
  const inCircuit = useMemo(() => ({ document, readings: readingsInCircuit(unit) }), [document, unit]);
  const judged = useJudgements(inCircuit);
  const harm = useHarm(document);
  const [view, setView] = useState<View>('Run');
  const [order, setOrder] = useState<Order>('as typed');
  const rank = useMemo(() => rankBy(order, unit, harm), [order, unit, harm]);
  const parts = useMemo(() => ordered(measuredParts(unit, judged), rank), [unit, judged, rank]);
  // A run begins with what has not been measured, whatever was selected before.
  useEffect(() => selectRef(null), [selectRef]);
  const [skipped, setSkipped] = useState<ReadonlySet<string>>(new Set());
  const [condition, setCondition] = useState<ReadingCondition>(() =>
    localStorage.getItem(CONDITION_KEY) === 'in circuit' ? 'in circuit' : 'leg lifted',
  );
  const [instrument, setInstrument] = useState(() => localStorage.getItem(INSTRUMENT_KEY) ?? '');
  const [isSpoken, setIsSpoken] = useState(speaks);
  const [draft, setDraft] = useState('');
  const [last, setLast] = useState<{
    ref: string;
    value: number | 'open' | 'short';
    condition: ReadingCondition;
  } | null>(null);
  const [told, setTold] = useState<string | null>(null);
  const chosen = parts.find((p) => p.part.ref === selectedRef);
  const current = chosen ?? nextToMeasure(parts, null, skipped);
  // The field stays when the run is done: what has a name can still be entered.
  const subject = current ?? parts[0];
  const measured = parts.filter((p) => p.reading).length;
  const out = parts.filter(
    (p) => p.verdict && ['high', 'low', 'open', 'short'].includes(p.verdict.kind),
  ).length;
  const cautions = cautionsOf(unit.hazards.filter((h) => h !== 'battery only')).slice(0, 2);
  const lastPart = last && parts.find((p) => p.part.ref === last.ref);
  const lastVerdict =
    lastPart && last
      ? (last.condition === 'in circuit' && judged.get(last.ref)) || judgeReading(lastPart.part, last)
      : null;
  const lastSentence = last && lastVerdict ? `${last.ref}: ${lastVerdict.sentence}` : null;
  useEffect(() => {
    if (lastSentence !== null) speak(lastSentence);
  }, [lastSentence]);

  // What is typed stays with the part it was begun for, whatever another page enters meanwhile.
  const type = (text: string) => {
    if (draft === '' && text !== '' && current) selectRef(current.part.ref);
    setDraft(text);
  };
  const keepCondition = (next: ReadingCondition) => {
    localStorage.setItem(CONDITION_KEY, next);
    setCondition(next);
  };
  const goOn = (ref: string, also: ReadonlySet<string>) => {
    const left = parts.map((p) => (p.part.ref === ref ? { ...p, reading: p.reading ?? PENDING } : p));
    selectRef(nextToMeasure(left, ref, also)?.part.ref ?? null);
  };
  const enterPart = (ref: string, value: number | 'open' | 'short', how: ReadingCondition, esr?: number) => {
    const resource = unit.parts.find((p) => p.part.ref === ref);
    if (!resource) return;
    change({
      type: 'add-reading',
      tempId: newKey(),
      partId: resource.id,
      seen: resource.version,
      value,
      condition: how,
      ...(instrument === '' ? {} : { instrument }),
      ...(esr === undefined ? {} : { esr }),
      takenAt: new Date().toISOString(),
    });
    setLast({ ref, value, condition: how });
    setTold(
      esr === undefined
        ? null
        : esrSentence(
            document.circuit.parts.find((p) => p.ref === ref),
            esr,
          ),
    );
    goOn(ref, skipped);
  };
  const enter = (entry: Entry) => {
    setDraft('');
    if (entry.kind === 'part') {
      enterPart(entry.ref, entry.value, entry.condition ?? condition, entry.esr);
      return;
    }
    if (entry.kind === 'readout') {
      const readout = unit.readouts.find((r) => r.readout.id === entry.id);
      if (!readout) return;
      change({
        type: 'add-reading',
        tempId: newKey(),
        readoutId: readout.id,
        seen: 0,
        value: entry.value,
        condition: 'leg lifted',
        takenAt: new Date().toISOString(),
      });
      setTold(
        /offset/i.test(readout.readout.name)
          ? judgeOffset(entry.value).sentence
          : `${readout.readout.name}: taken for the bench column.`,
      );
      return;
    }
    const saw = entry.kind === 'seen' ? entry.saw : { value: entry.value, unit: 'V' };
    change({
      type: 'add-evidence',
      tempId: newKey(),
      evidence: { at: entry.at, saw },
      takenAt: new Date().toISOString(),
    });
    setTold(
      evidenceSentence(preparePath(document.path ?? { blocks: [], links: [] }, document.circuit), {
        at: entry.at,
        saw,
      }),
    );
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

  return (
    <section className="hs-panel hs-sheet" aria-label="Readings">
      <header className="hs-panel-head">
        <h2>Readings</h2>
        <span className="hs-dim">
          {measured} of {parts.length} parts{out > 0 ? ` · ${out} out` : ''}
        </span>
        <span className="hs-grow" />
        <CsvButtons />
      </header>
      {cautions.map((c) => (
        <p key={c} className="hs-caution">
          {c}
        </p>
      ))}
      {!current && (
        <RunEnd
          hasParts={parts.length > 0}
          hasSkipped={skipped.size > 0}
          onAgain={() => setSkipped(new Set())}
        />
      )}
      {subject && (
        <ReadingField
          subject={subject}
          text={draft}
          onText={type}
          condition={condition}
          onCondition={keepCondition}
          onEnter={enter}
          onSkip={() => current && skip(current)}
          onStep={step}
        />
      )}
      {lastSentence !== null && lastVerdict && last && (
        <p className="hs-last-verdict" role="status">
          {last.ref}: <VerdictMark kind={lastVerdict.kind} words={lastVerdict.sentence} />
          {lastPart && <Again part={lastPart} />}
        </p>
      )}
      {told !== null && (
        <p className="hs-last-verdict" role="status">
          {told}
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
            value={order}
            options={ORDERS.map((value) => ({ value }))}
            onChange={setOrder}
            aria-label="Order of the run"
            popupMatchSelectWidth={false}
          />
        )}
        <Input
          size="small"
          className="hs-instrument"
          value={instrument}
          placeholder="instrument"
          aria-label="Instrument"
          onChange={(e) => {
            setInstrument(e.target.value);
            localStorage.setItem(INSTRUMENT_KEY, e.target.value);
          }}
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
          isOrdered={order !== 'as typed'}
          currentRef={current?.part.ref ?? null}
          onSelect={selectRef}
        />
      )}
      {view === 'Does it matter' && <HarmPanel />}
      {view === 'Voltages' && <Voltages onChoose={(net) => setDraft(`${net} `)} />}
    </section>
  );
}

function esrSentence(part: Part | undefined, esr: number): string | null {
  const marked = part?.marked;
  if (!part || typeof marked !== 'number') return null;
  const volt = typeof part['voltage'] === 'number' ? part['voltage'] : undefined;
  return judgeEsr(marked, volt, esr).sentence;
}

/** Repeated readings of one part under one condition. */
function Again({ part }: { part: MeasuredPart }) {
  const { unit } = useUnitContext();
  const found = repeated(unit.readings.filter((r) => r.partId === part.resource.id && !r.withdrawn));
  if (!found) return null;
  const text = (value: number) => valueWords(part.part, value);
  return (
    <span className="hs-dim">
      {' '}
      · {found.count} readings, mean {text(found.mean)}, spread {text(found.spread)}
    </span>
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
