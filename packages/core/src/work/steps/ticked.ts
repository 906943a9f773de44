import type { BenchTicks, Tick } from '@zemble/contract';
import type { BenchStep, StepKind } from './bench-step.ts';

/** A step with whether it is done. */
export interface TickedStep {
  readonly step: BenchStep;
  /** When it was ticked, where its tick still holds. */
  readonly done: Tick | undefined;
  /** Why a tick that is there does not hold any more: a sentence. */
  readonly lapsed: string | undefined;
}

/** What makes a unit safe holds as long as somebody is at it: after a pause it is done again, h. */
const SAFE_FOR_H = 4;
const SAFETY: ReadonlySet<StepKind> = new Set(['safe', 'discharge', 'dead']);
const PROOF: ReadonlySet<StepKind> = new Set(['check', 'power']);
/** What is done once for a piece of work, whatever it is. */
const FRAME: ReadonlySet<StepKind> = new Set([...SAFETY, ...PROOF, 'photograph', 'mark', 'loosen']);

/**
 * Which steps are done. What makes a unit safe lapses after a pause, what was checked with the next thing that is done to the unit,
 * and what framed a piece of work when that is finished and there is other work.
 *
 * @param ticks ticks of steps that no change has, by their ids
 * @param nowMs the time now, ms since 1970
 */
export function tickedSteps(
  steps: readonly BenchStep[],
  ticks: BenchTicks,
  nowMs: number,
): readonly TickedStep[] {
  const tickOf = (step: BenchStep): Tick | undefined =>
    step.done ?? (Object.hasOwn(ticks, step.id) ? ticks[step.id] : undefined);
  const timeOf = (tick: Tick): number => Date.parse(tick.at);
  const lastWork = Math.max(
    -Infinity,
    ...steps.flatMap((step) => {
      const tick = tickOf(step);
      return tick && !SAFETY.has(step.kind) && !PROOF.has(step.kind) ? [timeOf(tick)] : [];
    }),
  );
  const last = Math.max(
    -Infinity,
    ...steps.flatMap((step) => tickOf(step)?.at ?? []).map((at) => Date.parse(at)),
  );
  const isPaused = nowMs - last > SAFE_FOR_H * 3_600_000;
  const end = steps.findLast((step) => step.kind === 'power');
  const finished = end && tickOf(end);
  const hasOpenWork = steps.some((step) => !FRAME.has(step.kind) && !tickOf(step));
  return steps.map((step): TickedStep => {
    const tick = tickOf(step);
    if (!tick) return { step, done: undefined, lapsed: undefined };
    if (hasOpenWork && finished && FRAME.has(step.kind) && timeOf(tick) <= timeOf(finished))
      return { step, done: undefined, lapsed: 'It was done for work that is finished.' };
    if (SAFETY.has(step.kind) && isPaused)
      return {
        step,
        done: undefined,
        lapsed: 'It was done before a pause: somebody may have switched it on since.',
      };
    if (PROOF.has(step.kind) && timeOf(tick) < lastWork)
      return { step, done: undefined, lapsed: 'Something was done to the unit since.' };
    return { step, done: tick, lapsed: undefined };
  });
}

/** The step that is next: the first that is not done and needs nothing that is not done; undefined where all is done. */
export function nextStep(steps: readonly TickedStep[]): TickedStep | undefined {
  const done = new Set(steps.filter((s) => s.done).map((s) => s.step.id));
  return steps.find((s) => !s.done && s.step.needs.every((id) => done.has(id))) ?? steps.find((s) => !s.done);
}

/** What has to be done before a step, of what is not done yet. */
export function missingBefore(steps: readonly TickedStep[], id: string): readonly BenchStep[] {
  const byId = new Map(steps.map((s) => [s.step.id, s]));
  return (byId.get(id)?.step.needs ?? []).flatMap((need) => {
    const found = byId.get(need);
    return found && !found.done ? [found.step] : [];
  });
}
