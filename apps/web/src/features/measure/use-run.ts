import type { ReadingCondition } from '@zemble/contract';
import {
  bareAspect,
  circuitAt,
  isLegOut,
  judgeReading,
  partsInPlace,
  withEsr,
  type Entry,
  type Part,
  type Verdict,
} from '@zemble/core';
import { useCallback, useMemo, useState } from 'react';
import { newId } from '../../api/new-id.ts';
import { useLayer } from '../../unit/layer.tsx';
import { useAnalysed } from '../../unit/analysed.tsx';
import { useSelection } from '../../unit/selection.tsx';
import { useMains } from '../../api/use-mains.ts';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { useComputed } from '../../compute/use-computed.ts';
import { useHarm, useJudgements } from '../../compute/use-measuring.ts';
import { rankBy, readingsForCircuit } from './reading-order.ts';
import {
  measuredParts,
  nextToMeasure,
  ordered,
  verdictKey,
  type MeasuredPart,
  type Order,
} from './measured-parts.ts';
import { CONDITIONS, type Condition } from './reading-field.tsx';
import { tellReadout, tellSeen, tellVoltage, type SpokenVerdict } from './voltage-verdict.ts';

const CONDITION_KEY = 'zemble.condition';
const INSTRUMENT_KEY = 'zemble.instrument';
const RED_KEY = 'zemble.red-lead';

interface LastReading {
  readonly id: string;
  readonly ref: string;
  readonly value: number | 'open' | 'short';
  readonly condition: ReadingCondition;
  readonly aspect: string | null;
  readonly esr: number | null;
  readonly red: string | null;
  readonly isAsDrawn: boolean;
}

/** Which of a part's two pins has the red lead: the one that stands first in its line, or the other. */
const RED_PLACES = ['first', 'second'] as const;
type RedPlace = (typeof RED_PLACES)[number];

/** The pin with the red lead as it was told last; null for parts that are not read between two pins. */
function pinAt(part: Part, place: RedPlace | null): string | null {
  const pins = Object.keys(part.pins);
  return place === null || pins.length !== 2 ? null : pins[RED_PLACES.indexOf(place)]!;
}

/** What would decide about a reading, and what can be answered with one key. */
export interface Question {
  readonly ref: string;
  readonly asks: 'red lead' | 'controls';
  /** The pin that is taken to have the red lead: it was so told last. */
  readonly taken: string | null;
  /** Pin and net, in the order of the part's line. */
  readonly pins: readonly (readonly [pin: string, net: string])[];
}

/** Stands for the reading just entered, until the unit has it. */
const PENDING = {} as NonNullable<MeasuredPart['reading']>;

/** A run through the parts: where it stands, what is typed, and what becomes of an entry. */
export function useRun(shown: ReadonlyMap<string, number>) {
  const { unit, document, change } = useUnitContext();
  const { selectedRef, selectRef } = useSelection();
  const { analysis } = useAnalysed();
  const { layer } = useLayer();
  const computed = useComputed(document);
  const { parts: resources, readings, changes } = unit;
  const all = useMemo(
    () => ({ document: computed, readings: readingsForCircuit({ parts: resources, readings, changes }) }),
    [computed, resources, readings, changes],
  );
  const judged = useJudgements(all, 'all');
  const harm = useHarm(computed);
  const { weighed } = harm;
  const [order, setOrder] = useState<Order>('as typed');
  const rank = useMemo(() => rankBy(order, unit, weighed), [order, unit, weighed]);
  const parts = useMemo(() => ordered(measuredParts(unit, judged), rank), [unit, judged, rank]);
  const [skipped, setSkipped] = useState<ReadonlySet<string>>(new Set());
  const [chosenCondition, setCondition] = useState<Condition>(
    () => CONDITIONS.find((c) => c === localStorage.getItem(CONDITION_KEY)) ?? 'in circuit',
  );
  const [instrument, setInstrument] = useState(() => localStorage.getItem(INSTRUMENT_KEY) ?? '');
  const [redPlace, setRedPlace] = useState<RedPlace | null>(
    () => RED_PLACES.find((p) => p === localStorage.getItem(RED_KEY)) ?? null,
  );
  const [draft, setDraft] = useState('');
  const [last, setLast] = useState<LastReading | null>(null);
  const [told, setTold] = useState<SpokenVerdict | null>(null);
  const lastOnly = useMemo(
    () => ({
      document: computed,
      readings: last ? [{ key: verdictKey(last), ...last }] : [],
    }),
    [computed, last],
  );
  const lastJudged = useJudgements(lastOnly, 'last');

  const keepCondition = useCallback((next: Condition) => {
    localStorage.setItem(CONDITION_KEY, next);
    setCondition(next);
  }, []);
  const keepInstrument = useCallback((next: string) => {
    localStorage.setItem(INSTRUMENT_KEY, next);
    setInstrument(next);
  }, []);
  const chosen = parts.find((p) => p.part.ref === selectedRef);
  const current = chosen ?? nextToMeasure(parts, null, skipped);

  const legsOut = useMemo(
    () => new Set(circuitAt(computed.circuit, 'proven').parts.flatMap((p) => (isLegOut(p) ? [p.ref] : []))),
    [computed],
  );
  const isOut = current !== undefined && legsOut.has(current.part.ref);
  const condition = isOut ? 'leg lifted' : chosenCondition;

  const { mainsHz } = useMains();
  const onBench = { shown, supplies: analysis?.layers[layer].supplies ?? {}, mainsHz };
  const goOn = (ref: string, also: ReadonlySet<string>) => {
    const left = parts.map((p) => (p.part.ref === ref ? { ...p, reading: p.reading ?? PENDING } : p));
    selectRef(nextToMeasure(left, ref, also)?.part.ref ?? null);
  };
  const enterPart = (entry: Extract<Entry, { kind: 'part' }>) => {
    const { ref, value, esr, aspect } = entry;
    const place = partsInPlace(unit).find((p) => p.part.ref === ref);
    if (!place) return;
    const how = entry.condition ?? condition;
    const { part } = place;
    const isAcross = how === 'in circuit' && aspect === undefined;
    const red = entry.red ?? (isAcross ? pinAt(part, redPlace) : null);
    const isAsDrawn = entry.isAsDrawn === true;
    const id = newId();
    change({
      type: 'add-reading',
      id,
      ...place.of,
      seen: place.version,
      value,
      condition: how,
      ...(instrument === '' ? {} : { instrument }),
      ...(esr === undefined ? {} : { esr }),
      ...(aspect === undefined ? {} : { aspect }),
      ...(red === null ? {} : { red }),
      ...(isAsDrawn ? { isAsDrawn } : {}),
      takenAt: new Date().toISOString(),
    });
    setLast({ id, ref, value, condition: how, aspect: aspect ?? null, esr: esr ?? null, red, isAsDrawn });
    setTold(null);
    // Something more of one part, as its leakage, does not end the work on it.
    if (aspect === undefined || bareAspect(part)) goOn(ref, skipped);
  };
  const lastVerdict = last && lastVerdictOf(last, parts, lastJudged);
  const asked = askedOf(current, last, lastVerdict);
  const answer = (index: number) => {
    if (!asked) return;
    const { question, readingId } = asked;
    const pin = question.pins[index];
    if (question.asks === 'red lead' && !pin) return;
    const told = question.asks === 'red lead' ? { red: pin![0] } : { isAsDrawn: true };
    if (question.asks === 'red lead') {
      localStorage.setItem(RED_KEY, RED_PLACES[index]!);
      setRedPlace(RED_PLACES[index]!);
    }
    change({ type: 'amend-reading', readingId, told });
    if (last?.id === readingId) setLast({ ...last, ...told });
  };
  const enterReadout = ({ id, value }: Extract<Entry, { kind: 'readout' }>) => {
    const readout = unit.readouts.find((r) => r.readout.id === id);
    const definition = document.readouts.find((r) => r.id === id);
    if (!readout || !definition) return;
    change({
      type: 'add-reading',
      id: newId(),
      readoutId: readout.id,
      seen: 0,
      value,
      condition: 'leg lifted',
      takenAt: new Date().toISOString(),
    });
    setTold(tellReadout(definition, value, document, onBench));
  };
  const enterPlace = (entry: Extract<Entry, { kind: 'seen' | 'voltage' }>) => {
    const saw = entry.kind === 'seen' ? entry.saw : { value: entry.value, unit: entry.unit };
    change({
      type: 'add-evidence',
      id: newId(),
      evidence: { at: entry.at, saw },
      takenAt: new Date().toISOString(),
    });
    setTold(entry.kind === 'seen' ? tellSeen(document, entry) : tellVoltage(entry, document, onBench));
  };

  return {
    parts,
    current,
    harm,
    order,
    setOrder,
    condition,
    /** Undefined while the part is read by itself anyway. */
    setCondition: isOut ? undefined : keepCondition,
    instrument,
    setInstrument: keepInstrument,
    draft,
    /** What is typed stays with the part it was begun for, whatever another page enters meanwhile. */
    type: (text: string) => {
      if (draft === '' && text !== '' && current) selectRef(current.part.ref);
      setDraft(text);
    },
    told,
    last: lastVerdict,
    question: asked?.question ?? null,
    answer,
    hasSkipped: skipped.size > 0,
    unskip: () => setSkipped(new Set()),
    enter: (entry: Entry) => {
      setDraft('');
      if (entry.kind === 'part') enterPart(entry);
      else if (entry.kind === 'readout') enterReadout(entry);
      else enterPlace(entry);
    },
    skip: () => {
      if (!current) return;
      const also = new Set([...skipped, current.part.ref]);
      setSkipped(also);
      goOn(current.part.ref, also);
    },
    step: (by: number) => {
      const index = parts.findIndex((p) => p === current);
      const next = parts[Math.min(parts.length - 1, Math.max(0, index + by))];
      if (next) selectRef(next.part.ref);
    },
  };
}

/** What can be told of the chosen part's reading, or of the one just entered, that would decide about it. */
function askedOf(
  current: MeasuredPart | undefined,
  last: LastReading | null,
  lastVerdict: LastVerdict | null,
): { readonly question: Question; readonly readingId: string } | null {
  const chosen = current?.reading && current.verdict?.asks ? current : null;
  const reading = chosen?.reading ?? last;
  const part = chosen?.part ?? lastVerdict?.measured.part;
  const verdict = chosen?.verdict ?? lastVerdict?.verdict;
  if (!reading || !part || reading.aspect !== null || reading.condition !== 'in circuit') return null;
  const pins = Object.entries(part.pins);
  const asks = verdict?.asks === 'controls' ? 'controls' : 'red lead';
  const isOpen = verdict?.asks === 'red lead' || verdict?.asks === 'controls';
  if (!isOpen && (reading.red === null || pins.length !== 2)) return null;
  return { readingId: reading.id, question: { ref: part.ref, asks, taken: reading.red, pins } };
}

export interface LastVerdict {
  readonly measured: MeasuredPart;
  readonly verdict: Verdict;
  readonly aspect: string | null;
}

/** The verdict on the reading just entered: at once by its marking, and by the circuit as soon as that is computed. */
function lastVerdictOf(
  last: LastReading,
  parts: readonly MeasuredPart[],
  judged: ReadonlyMap<string, Verdict>,
): LastVerdict | null {
  const measured = parts.find((p) => p.part.ref === last.ref);
  if (!measured) return null;
  const { aspect, condition } = last;
  const byCircuit = judged.get(verdictKey(last));
  if (aspect !== null) return byCircuit ? { measured, verdict: byCircuit, aspect } : null;
  const verdict =
    (condition === 'in circuit' && byCircuit) ||
    withEsr(measured.part, judgeReading(measured.part, last), last.esr);
  return { measured, verdict, aspect };
}
