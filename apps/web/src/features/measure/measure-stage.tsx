import type { ReadingCondition, UnitResource } from '@halfsplit/contract';
import {
  cautionsOf,
  entryHeads,
  evidenceSentence,
  formatQuantity,
  judgeEsr,
  judgeOffset,
  judgeReading,
  KINDS,
  parseEntry,
  preparePath,
  QUANTITY_KINDS,
  usualTolerance,
  type Entry,
  type EntryResult,
  type Part,
  type UnitDocument,
  type Verdict,
} from '@halfsplit/core';
import { Button, Checkbox, Input, Segmented, Select } from 'antd';
import { useEffect, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { newKey } from '../../api/client.ts';
import { useUnitContext } from '../../app/unit-context.tsx';
import { Bands } from '../../ui/bands.tsx';
import { Keys } from '../../ui/keys.tsx';
import { VerdictMark } from '../../ui/marks.tsx';
import { CircuitPanel } from '../circuit/index.ts';
import { ReadingsTable } from './readings-table.tsx';
import type { Harm } from '../../compute/measuring.ts';
import { useHarm, useJudgements } from '../../compute/use-measuring.ts';
import { CsvButtons } from './csv-buttons.tsx';
import { HarmPanel } from './harm-panel.tsx';
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
          key={subject.part.ref}
          subject={subject}
          text={draft}
          onText={setDraft}
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

/** Latest reading of every part that was made in circuit. */
function readingsInCircuit(unit: UnitResource) {
  return unit.parts.flatMap(({ id, part }) => {
    const reading = unit.readings.filter((r) => r.partId === id && !r.withdrawn).at(-1);
    return reading?.condition === 'in circuit'
      ? [{ ref: part.ref, value: reading.value, condition: reading.condition }]
      : [];
  });
}

/** What counts for an order of the run: harm of the drift, or suspicion of the block the part is in. */
function rankBy(order: Order, unit: UnitResource, harm: Harm | null): (ref: string) => number {
  if (order === 'by harm') {
    const ranks = new Map((harm?.drifts ?? []).map((d, i, all) => [d.ref, all.length - i]));
    return (ref) => ranks.get(ref) ?? 0;
  }
  if (order === 'by suspicion') {
    const convicted = new Set((unit.intake.convicted ?? []).flatMap((c) => [c.ref ?? '', c.blockId ?? '']));
    const noted = new Set((unit.intake.notes ?? []).flatMap((n) => [n.ref ?? '', n.blockId ?? '']));
    const blockOf = new Map(
      (unit.path?.blocks ?? []).flatMap((b) => (b.parts ?? []).map((r) => [r, b.id] as const)),
    );
    const isWet = (ref: string) => unit.parts.find((p) => p.part.ref === ref)?.part['polarised'] === true;
    return (ref) => {
      const block = blockOf.get(ref) ?? '-';
      return (
        (convicted.has(ref) || convicted.has(block) ? 4 : 0) +
        (noted.has(ref) || noted.has(block) ? 2 : 0) +
        (isWet(ref) ? 1 : 0)
      );
    };
  }
  return () => 0;
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

interface ReadingFieldProps {
  readonly subject: MeasuredPart;
  /** What is typed; it outlives the part, so that a net can be begun from the table. */
  readonly text: string;
  readonly onText: (text: string) => void;
  readonly condition: ReadingCondition;
  readonly onCondition: (condition: ReadingCondition) => void;
  readonly onEnter: (entry: Entry) => void;
  readonly onSkip: () => void;
  readonly onStep: (by: number) => void;
}

/** A bare value is the current part's; a line that begins with a name is what it says. */
function readLine(text: string, part: Part, document: UnitDocument): EntryResult | null {
  if (text.trim() === '') return null;
  const named = parseEntry(text, document);
  if (named.ok) return named;
  const bare = parseEntry(`${part.ref} ${text}`, document);
  // A line with a name of its own that cannot be read is not taken for a bare value.
  const startsWithName = /^[A-Za-z]/.test(text.trim()) && text.trim().includes(' ');
  return bare.ok || !startsWithName ? bare : named;
}

function ReadingField(props: ReadingFieldProps) {
  const { subject, text, onText, condition, onCondition, onEnter, onSkip, onStep } = props;
  const { document } = useUnitContext();
  const { part } = subject;
  const [isRefused, setIsRefused] = useState(false);
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => field.current?.focus(), [text]);
  const read = readLine(text, part, document);
  const entry = read?.ok ? read.entry : null;
  const subjectPart =
    entry?.kind === 'part' ? document.circuit.parts.find((p) => p.ref === entry.ref) : undefined;
  const verdict =
    entry?.kind === 'part' && subjectPart
      ? judgeReading(subjectPart, { value: entry.value, condition: entry.condition ?? condition })
      : null;
  const words = completionsOf(text, document);
  const toggle = () => onCondition(condition === 'in circuit' ? 'leg lifted' : 'in circuit');
  const onKey = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key === 'Enter') {
      event.preventDefault();
      if (!read) onSkip();
      else if (read.ok) onEnter(read.entry);
      else setIsRefused(true);
    } else if (event.key === 'Tab' && !event.shiftKey && text !== '') {
      event.preventDefault();
      if (words[0] !== undefined) onText(`${words[0]} `);
      else toggle();
    } else if (text === '' && (event.key === 'ArrowDown' || event.key === 'ArrowUp')) {
      event.preventDefault();
      onStep(event.key === 'ArrowDown' ? 1 : -1);
    } else if (event.key === ' ' && text === '') {
      event.preventDefault();
      toggle();
    } else if (event.key === 'Escape') onText('');
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
            onText(event.target.value);
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
        {words.length > 0 ? (
          <>
            <Keys keys="Tab" /> <span className="hs-mono">{words.join('  ')}</span>
          </>
        ) : !read ? (
          <>
            <Keys keys="Enter" /> takes the reading; empty, it skips. Anything else goes in by name:{' '}
            <span className="hs-mono">R7 62k</span>, <span className="hs-mono">Q2c 4.1V</span>,{' '}
            <span className="hs-mono">TP5 hum</span>.
          </>
        ) : !read.ok ? (
          read.problem.message
        ) : (
          <EntryWords
            entry={read.entry}
            part={subjectPart}
            isOther={subjectPart?.ref !== part.ref}
            verdict={verdict}
          />
        )}
      </p>
    </div>
  );
}

/** What an entry was understood as, before it is taken. */
function EntryWords({
  entry,
  part,
  isOther,
  verdict,
}: {
  entry: Entry;
  part: Part | undefined;
  isOther: boolean;
  verdict: Verdict | null;
}) {
  if (entry.kind === 'part' && part)
    return (
      <>
        {isOther && <strong>{entry.ref} </strong>}
        <span className="hs-number">{valueWords(part, entry.value)}</span>{' '}
        {entry.esr !== undefined && `ESR ${formatQuantity(entry.esr, 'ohm')} `}
        {verdict && <VerdictMark kind={verdict.kind} words={verdict.sentence} />}
      </>
    );
  if (entry.kind === 'voltage')
    return (
      <>
        {formatQuantity(entry.value, 'V', { digits: 4 })} at {entry.at}
      </>
    );
  if (entry.kind === 'seen')
    return (
      <>
        {entry.saw} at {entry.at}
      </>
    );
  return <>what the bench says of a readout: {entry.kind === 'readout' ? entry.value : ''}</>;
}

const MOST_WORDS = 6;

/** Names that the first word may become; none once it is one. */
function completionsOf(text: string, document: UnitDocument): string[] {
  const word = text.trimStart().toLowerCase();
  if (word === '' || /\s/.test(word) || !/^[a-z]/.test(word)) return [];
  const heads = entryHeads(document);
  if (heads.some((h) => h.toLowerCase() === word)) return [];
  return heads.filter((h) => h.toLowerCase().startsWith(word)).slice(0, MOST_WORDS);
}

const unitOfPart = (part: Part) => QUANTITY_KINDS[KINDS[part.kind].value ?? 'number'];

export const valueWords = (part: Part, value: number | 'open' | 'short'): string =>
  typeof value === 'number' ? formatQuantity(value, unitOfPart(part), { digits: 4 }) : value;

function markingOf(part: Part): string {
  if (typeof part.marked !== 'number') return 'no marking';
  const tolerance = `±${Number((usualTolerance(part) * 100).toPrecision(2))} %`;
  return `${formatQuantity(part.marked, unitOfPart(part))} ${tolerance}`;
}
