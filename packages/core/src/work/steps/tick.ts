import type { BenchTicks, Done, FileChange, Thing, UnitResource } from '@zemble/contract';
import type { BenchStep, Ticks } from './bench-step.ts';

type Ticked = Pick<UnitResource, 'changes' | 'ticks'>;
type ChangeRow = UnitResource['changes'][number];

/** What a tick does to the record of a unit. */
export interface Tick {
  /** The change that it belongs to, as it is then; with the step, where one of its own is ticked. */
  readonly change: {
    readonly row: ChangeRow;
    readonly change: FileChange;
    readonly step?: number;
    /** Its steps are others than before, and not only ticked. */
    readonly isRewritten?: boolean;
  } | null;
  /** Plans that do less from now on, since what they had for the part was replaced. */
  readonly replaced: readonly { readonly row: ChangeRow; readonly change: FileChange }[];
  /** What is put beside the unit's fields, where no change has the step. */
  readonly ticks: Thing | null;
}

/**
 * What ticking a step of the bench work does, or taking its tick back: a step of a change is ticked in it, and with the last one the
 * change is done; the last step of the way back takes the change back; all others are ticked beside the unit's fields.
 *
 * @param steps of the work that the step is of; a step that is not among them is ticked beside
 * @param at the time, ISO 8601
 */
export function tickOf(
  unit: Ticked,
  steps: readonly BenchStep[],
  id: string,
  isDone: boolean,
  at: string,
): Tick {
  const step = steps.find((each) => each.id === id);
  const row = unit.changes.find(({ change }) => change.id === step?.ticks?.change);
  if (row && step?.ticks && !isWayBack(id)) {
    const { step: index } = step.ticks;
    const own = isDone ? asSoldered(row.change, step, index) : { change: row.change, at: index };
    const change = withStepTicked(own.change, own.at, isDone ? { at } : undefined, at);
    const others = (step.replaces ?? []).filter((r) => r.change !== row.change.id);
    const isRewritten = own.change !== row.change;
    return {
      change: { row, change, step: index, ...(isRewritten ? { isRewritten } : {}) },
      replaced: isDone ? withoutReplaced(unit, others, at) : [],
      ticks: null,
    };
  }
  const was = Object.hasOwn(unit.ticks, id) ? unit.ticks[id]! : null;
  const ticks: Thing = { at: ['ticks', id], was: was as Thing['was'], now: isDone ? { at } : null };
  const isLast = row && isDone && isWayBack(id) && othersAreDone(unit, steps, id);
  return { change: isLast ? { row, change: inState(row.change, 'undone', at) } : null, replaced: [], ticks };
}

/** A change as one of its steps was soldered: without its own steps that are not, since that one was; and where the step is then. */
function asSoldered(
  change: FileChange,
  { as, replaces = [] }: BenchStep,
  index: number,
): { readonly change: FileChange; readonly at: number } {
  const gone = new Set(replaces.flatMap((r) => (r.change === change.id ? [r.step] : [])));
  if (!as && gone.size === 0) return { change, at: index };
  const steps = change.steps.map((step, i) => (i === index && as ? as : step)).filter((_, i) => !gone.has(i));
  return { change: { ...change, steps }, at: index - [...gone].filter((i) => i < index).length };
}

/** Plans without steps that another one was soldered in place of; dropped where nothing is left of them. */
function withoutReplaced({ changes }: Ticked, gone: readonly Ticks[], at: string): Tick['replaced'] {
  return changes.flatMap((row) => {
    const own = new Set(gone.flatMap((g) => (g.change === row.change.id ? [g.step] : [])));
    if (own.size === 0) return [];
    const steps = row.change.steps.filter((_, i) => !own.has(i));
    const change: FileChange =
      steps.length === 0 ? inState(row.change, 'dropped', at) : { ...row.change, steps };
    const isWhole = steps.length > 0 && steps.every((step) => step.done !== undefined);
    return [{ row, change: isWhole ? inState(change, 'done', at) : change }];
  });
}

/** A step of the way back of a change, by its id. */
const WAY_BACK = /^back:(.+)\.\d+$/;
const isWayBack = (id: string): boolean => WAY_BACK.test(id);

/** Whether the rest of the way back of the same change is ticked; that of another, which comes back beside it, is not asked. */
function othersAreDone(unit: Ticked, steps: readonly BenchStep[], id: string): boolean {
  const held = heldTicks(unit);
  const changeOf = (backId: string) => WAY_BACK.exec(backId)?.[1];
  return steps.every(
    (step) => changeOf(step.id) !== changeOf(id) || step.id === id || Object.hasOwn(held, step.id),
  );
}

/** Ticks without those of a way back that was gone before the change was done again. */
export function heldTicks({ ticks, changes }: Ticked): BenchTicks {
  const since = new Map(
    changes.flatMap(({ change }) => (change.state === 'done' ? [[change.id, change.since ?? '']] : [])),
  );
  const isOld = (id: string, at: string) => {
    const [, change] = WAY_BACK.exec(id) ?? [];
    const done = change === undefined ? undefined : since.get(change);
    return done !== undefined && at < done;
  };
  return Object.fromEntries(Object.entries(ticks).filter(([id, { at }]) => !isOld(id, at)));
}

/**
 * A change with one of its steps ticked, or not any more: with the last tick it is done, without it planned.
 *
 * @param done when and by whom it was ticked; undefined where it is not
 * @param at the time, ISO 8601
 */
export function withStepTicked(
  change: FileChange,
  index: number,
  done: Done | undefined,
  at: string,
): FileChange {
  const steps = change.steps.map(({ done: before, ...step }, i) => {
    const now = i === index ? done : before;
    return now === undefined ? step : { ...step, done: now };
  }) as FileChange['steps'];
  const state = steps.every((step) => step.done !== undefined) ? 'done' : 'planned';
  return { ...change, steps, state, ...(state === change.state ? {} : { since: at }) };
}

/** A change in a state: all of its steps are ticked where it is done, and none elsewhere. */
export function inState(change: FileChange, state: FileChange['state'], at: string): FileChange {
  const steps = change.steps.map(({ done, ...step }) =>
    state === 'done' ? { ...step, done: done ?? { at } } : step,
  );
  return { ...change, state, since: at, steps: steps as FileChange['steps'] };
}
