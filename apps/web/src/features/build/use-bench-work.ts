import type { UnitResource } from '@zemble/contract';
import {
  missingBefore,
  nextStep,
  tickedSteps,
  type BenchStep,
  type Problem,
  type TickedStep,
  type WorkWish,
} from '@zemble/core';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { useWork } from '../../compute/use-work.ts';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { useChangeActions } from '../changes/index.ts';

/** The work that is at hand, and what can be done with it. */
export interface BenchWork {
  /** Null before it is worked out. */
  readonly steps: readonly TickedStep[] | null;
  readonly problems: readonly Problem[];
  readonly next: TickedStep | undefined;
  readonly missingBefore: (id: string) => readonly BenchStep[];
  readonly tick: (step: BenchStep, isDone: boolean) => void;
  /** Takes the ticks of all steps that belong to no change. */
  readonly beginAnew: () => void;
}

/** A pause is noticed without anybody touching the page, ms. */
const LOOK_AGAIN_MS = 60_000;

export function useBenchWork(wish: WorkWish): BenchWork {
  const { unit, document, change } = useUnitContext();
  const { tickStep, put } = useChangeActions();
  const work = useWork(document, wish);
  const nowMs = useNow();
  const steps = useMemo(
    () => (work ? tickedSteps(work.steps, heldTicks(unit), nowMs) : null),
    [work, unit, nowMs],
  );
  const tick = useCallback(
    (step: BenchStep, isDone: boolean) => {
      const at = new Date().toISOString();
      const resource = unit.changes.find((c) => c.change.id === step.ticks?.change);
      const isBack = step.id.startsWith('back:');
      if (resource && step.ticks && !isBack) return tickStep(resource, step.ticks.step, isDone);
      change({ type: 'tick-step', id: step.id, words: step.say.slice(0, 1000), isDone, at });
      // The last step of the way back takes the change back.
      if (!resource || !isBack || !isDone) return;
      const others = (work?.steps ?? []).filter((s) => s.id.startsWith('back:') && s.id !== step.id);
      const held = heldTicks(unit);
      if (others.every((s) => Object.hasOwn(held, s.id))) put(resource, 'undone');
    },
    [unit, work, change, tickStep, put],
  );
  const beginAnew = useCallback(() => {
    const at = new Date().toISOString();
    for (const { step, done, lapsed } of steps ?? [])
      if ((done || lapsed !== undefined) && Object.hasOwn(unit.ticks, step.id))
        change({ type: 'tick-step', id: step.id, words: step.say.slice(0, 1000), isDone: false, at });
  }, [steps, unit.ticks, change]);
  return {
    steps,
    problems: work?.problems ?? [],
    next: steps ? nextStep(steps) : undefined,
    missingBefore: (id) => (steps ? missingBefore(steps, id) : []),
    tick,
    beginAnew,
  };
}

/** Ticks without those of a way back that was gone before the change was done again. */
function heldTicks({ ticks, changes }: UnitResource): UnitResource['ticks'] {
  const since = new Map(
    changes.flatMap(({ change }) => (change.state === 'done' ? [[change.id, change.since ?? '']] : [])),
  );
  const isOld = (id: string, at: string) => {
    const [, change] = /^back:(.+)\.\d+$/.exec(id) ?? [];
    const done = change === undefined ? undefined : since.get(change);
    return done !== undefined && at < done;
  };
  return Object.fromEntries(Object.entries(ticks).filter(([id, { at }]) => !isOld(id, at)));
}

function useNow(): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), LOOK_AGAIN_MS);
    return () => clearInterval(timer);
  }, []);
  return now;
}
