import type { ActOf, UnitResource } from '@zemble/contract';
import {
  heldTicks,
  missingBefore,
  nextStep,
  tickedSteps,
  type BenchStep,
  type Problem,
  type TickedStep,
  type WorkWish,
} from '@zemble/core';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { asOneEntry } from '../../api/act.ts';
import { useWork } from '../../compute/use-work.ts';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { useMeasures } from '../changes/index.ts';
import { useDrawer } from '../drawer/index.ts';

/** The work that is at hand, and what can be done with it. */
export interface BenchWork {
  /** Null before it is worked out. */
  readonly steps: readonly TickedStep[] | null;
  readonly problems: readonly Problem[];
  /** Why the work of now could not be made out. */
  readonly why: string | null;
  readonly next: TickedStep | undefined;
  readonly missingBefore: (id: string) => readonly BenchStep[];
  /** Ticks a step; false where something before it is not done yet. */
  readonly tick: (step: BenchStep, isDone: boolean) => boolean;
  /** Takes the ticks of all steps that belong to no change. */
  readonly beginAnew: () => void;
}

/** A pause is noticed without anybody touching the page, ms. */
const LOOK_AGAIN_MS = 60_000;

export function useBenchWork(wish: WorkWish): BenchWork {
  const { unit, document, change } = useUnitContext();
  const measures = useMeasures();
  const { items: drawer } = useDrawer();
  const { made, why } = useWork(document, wish, drawer);
  const work = made?.answer;
  const nowMs = useNow();
  const steps = useMemo(
    () => (work ? tickedSteps(work.steps, heldTicks(unit), nowMs) : null),
    [work, unit, nowMs],
  );
  const tick = useCallback(
    (step: BenchStep, isDone: boolean) => {
      // What is not its turn yet is not ticked, whichever key or button asks; taking a tick back always may be.
      if (isDone && steps && missingBefore(steps, step.id).length > 0) return false;
      change(tickAct(unit, step, wish, isDone, measures()));
      return true;
    },
    [steps, unit, wish, change, measures],
  );
  const beginAnew = useCallback(() => {
    const ticked = (steps ?? []).filter(
      ({ step, done, lapsed }) => (done || lapsed !== undefined) && Object.hasOwn(unit.ticks, step.id),
    );
    change(
      asOneEntry(
        ticked.map(({ step }) => tickAct(unit, step, wish, false, undefined)),
        'Begins the work anew.',
      ),
    );
  }, [steps, unit, wish, change]);
  return {
    steps,
    problems: work?.problems ?? [],
    why,
    next: steps ? nextStep(steps) : undefined,
    missingBefore: (id) => (steps ? missingBefore(steps, id) : []),
    tick,
    beginAnew,
  };
}

/** Longest words of a tick. */
const MOST_WORDS = 1000;

/** The act that ticks a step, wherever it comes from: the server finds its change, and what follows from it. */
function tickAct(
  { changes }: UnitResource,
  step: BenchStep,
  work: WorkWish,
  isDone: boolean,
  measures: ActOf<'tick-step'>['measures'],
): ActOf<'tick-step'> {
  const isBack = work.isBack === true || step.id.startsWith('back:');
  const isOfChange = !isBack && changes.some((c) => c.change.id === step.ticks?.change);
  const { alsoDone, ...wish } = work;
  return {
    type: 'tick-step',
    id: step.id,
    words: step.say.slice(0, MOST_WORDS),
    isDone,
    at: new Date().toISOString(),
    work: { ...wish, ...(alsoDone ? { alsoDone: [...alsoDone] } : {}) },
    ...(step.ticks && isOfChange ? { step: step.ticks } : {}),
    ...(isDone && measures ? { measures } : {}),
  };
}

function useNow(): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), LOOK_AGAIN_MS);
    return () => clearInterval(timer);
  }, []);
  return now;
}
