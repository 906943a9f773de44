import type { BeepResource } from '@zemble/contract';
import {
  contradictionsOf,
  formNets,
  nextBeep,
  probePlace,
  throughQuestions,
  twinDifferences,
  twinsOf,
  type BeepContradiction,
  type NextBeep,
  type ThroughQuestion,
  type Traceable,
  type TracedNets,
  type TwinDifference,
} from '@zemble/core';
import { useMemo, useState } from 'react';
import { asOneEntry } from '../../api/act.ts';
import { newId } from '../../api/new-id.ts';
import { useUnitContext } from '../../unit/unit-context.tsx';

/** A beep as it is recorded. */
export type NewBeep = Pick<BeepResource, 'says' | 'ends'>;

export interface Beeps {
  readonly traced: Traceable;
  readonly nets: TracedNets;
  readonly next: NextBeep;
  readonly contradictions: readonly BeepContradiction[];
  /** Where two channels that mirror one another differ. */
  readonly differences: readonly TwinDifference[];
  readonly throughs: readonly ThroughQuestion[];
  /** Where an end is touched: in few words, and as hands find it. */
  readonly placeOf: (end: string) => { readonly short: string; readonly words: string };
  readonly record: (...beeps: readonly NewBeep[]) => void;
  readonly withdraw: (beep: BeepResource) => void;
  readonly sayThrough: (beep: BeepResource, ref: string | null) => void;
  /** Passes an end over: it cannot be reached. */
  readonly pass: (end: string) => void;
  readonly passed: ReadonlySet<string>;
  readonly takeUpPassed: () => void;
}

/** The unit as it is traced by continuity: its nets, what contradicts itself, and what to beep next. */
export function useBeeps(): Beeps {
  const { unit, document, change } = useUnitContext();
  const [held, setHeld] = useState<string>();
  const [passed, setPassed] = useState<ReadonlySet<string>>(new Set());
  const { ground, parts } = document.circuit;
  const traced = useMemo(
    (): Traceable => ({ ground, parts, beeps: unit.beeps }),
    [ground, parts, unit.beeps],
  );
  const nets = useMemo(() => formNets(traced), [traced]);
  const twins = useMemo(() => twinsOf(parts), [parts]);
  const next = useMemo(
    () => nextBeep(traced, nets, { held, passed, twins }),
    [traced, nets, held, passed, twins],
  );
  const differences = useMemo(() => twinDifferences(traced, twins, nets), [traced, twins, nets]);
  const contradictions = useMemo(() => contradictionsOf(traced, nets), [traced, nets]);
  const throughs = useMemo(() => throughQuestions(traced, nets), [traced, nets]);
  return {
    traced,
    nets,
    next,
    contradictions,
    differences,
    throughs,
    passed,
    placeOf(end) {
      const dot = end.indexOf('.');
      const part = parts.find((p) => p.ref === end.slice(0, dot));
      if (part) return probePlace(part, end.slice(dot + 1));
      return end === ground ? { short: 'ground', words: 'ground' } : { short: end, words: `net ${end}` };
    },
    record(...beeps) {
      const takenAt = new Date().toISOString();
      change(asOneEntry(beeps.map((beep) => ({ type: 'add-beep' as const, id: newId(), beep, takenAt }))));
      setHeld(beeps[0]?.ends[0]);
    },
    withdraw: (beep) => change({ type: 'withdraw-beep', beepId: beep.id }),
    sayThrough: (beep, through) => change({ type: 'beep-through', beepId: beep.id, through }),
    pass: (end) => setPassed(new Set([...passed, end])),
    takeUpPassed: () => setPassed(new Set()),
  };
}
