import type { Act, FileChange, PlanValues, UnitResource } from '@zemble/contract';
import { activeSet } from '../../circuit/changes/index.ts';

type Resource = UnitResource['changes'][number];
type Planned = Pick<UnitResource, 'changes' | 'sets'>;

/** What is planned and meant to stay, of the active set or of every one. */
const isPlan = ({ change }: Resource, { sets }: Planned): boolean =>
  change.state === 'planned' &&
  (change.purpose === 'repair' || change.purpose === 'modification') &&
  (change.set === undefined || change.set === activeSet({ sets }));

const fitsOf = (change: FileChange): string[] => change.steps.flatMap((s) => (s.do === 'fit' ? [s.ref] : []));

const restated = ({ id, version, change }: Resource, values: Partial<FileChange>): Act => ({
  type: 'update-change',
  changeId: id,
  seen: version,
  change: { ...change, ...values },
});

/** The steps of a plan that a fit of a part replaces: another fit of it that is not done yet. */
const isReplaced = (step: FileChange['steps'][number], refs: ReadonlySet<string>): boolean =>
  step.do === 'fit' && step.done === undefined && refs.has(step.ref);

/** A plan that is still to be done without steps that are replaced; dropped where nothing is left of it. */
function withoutReplaced(resource: Resource, refs: ReadonlySet<string>): Act[] {
  const { steps } = resource.change;
  const left = steps.filter((step) => !isReplaced(step, refs));
  if (left.length === steps.length) return [];
  return [restated(resource, left.length === 0 ? { state: 'dropped' } : { steps: left })];
}

/** A step that brings a part, with what a later fit gives it. */
const broughtWith = (
  step: FileChange['steps'][number],
  fits: ReadonlyMap<string, unknown>,
): FileChange['steps'][number] => {
  if (step.do !== 'add' || step.done !== undefined) return step;
  const value = fits.get(step.part.ref);
  return typeof value === 'number' ? { ...step, part: { ...step.part, marked: value } } : step;
};

/** What a new plan does to the plans that are there. */
export interface Superseding {
  readonly acts: readonly Act[];
  /** The steps of the new plan that are left: a part that is yet to be brought is brought with its value. */
  readonly steps: FileChange['steps'];
  /** Names of the plans that do less now. */
  readonly names: readonly string[];
}

/**
 * What a new plan replaces in earlier ones, so that no part is soldered twice: fits of the same parts that are not done yet go, and
 * a part that an earlier plan is still to bring is brought with the new value.
 *
 * @param besides the change that is planned, which does not replace itself
 */
export function superseding(unit: Planned, steps: FileChange['steps'], besides?: string): Superseding {
  const fits = new Map(
    steps.flatMap((s) => (s.do === 'fit' && s.part === undefined ? [[s.ref, s.value] as const] : [])),
  );
  const refs = new Set(steps.flatMap((s) => (s.do === 'fit' ? [s.ref] : [])));
  const plans = unit.changes.filter((c) => isPlan(c, unit) && c.id !== besides);
  const brought = new Set<string>();
  const names: string[] = [];
  const acts = plans.flatMap((plan): Act[] => {
    const next = plan.change.steps.map((step) => broughtWith(step, fits));
    const own = next.flatMap((step, i) =>
      step !== plan.change.steps[i] && step.do === 'add' ? [step.part.ref] : [],
    );
    for (const ref of own) brought.add(ref);
    const told = { ...plan, change: { ...plan.change, steps: next } };
    const less = withoutReplaced(told, refs);
    if (less.length > 0 || own.length > 0) names.push(plan.change.name);
    return less.length > 0 || own.length === 0 ? less : [restated(plan, { steps: next })];
  });
  return { acts, names, steps: steps.filter((s) => s.do !== 'fit' || !brought.has(s.ref)) };
}

/**
 * The acts that plan other values for parts, under one name, with the reason for it: a change of its own. What earlier plans have for
 * these parts is replaced; a plan that is exactly for them is changed instead.
 */
export function planActs(unit: Planned, { id, values, why, purpose = 'repair' }: PlanValues): Act[] {
  const fits = Object.entries(values).map(([ref, value]) => ({ do: 'fit' as const, ref, value }));
  const refs = new Set(Object.keys(values));
  const same = unit.changes.find(
    (c) =>
      isPlan(c, unit) &&
      c.change.steps.length === refs.size &&
      c.change.steps.every((step) => isReplaced(step, refs)),
  );
  const { acts, steps } = superseding(unit, fits, same?.id);
  if (same) return [...acts, restated(same, { steps: fits, why })];
  if (steps.length === 0) return [...acts];
  const set = activeSet(unit);
  const named = steps.flatMap((s) => (s.do === 'fit' ? [s.ref] : []));
  const change: FileChange = {
    id,
    name: `Other value${named.length === 1 ? '' : 's'} of ${named.join(', ')}`.slice(0, LONGEST_NAME),
    purpose,
    state: 'planned',
    ...(set === undefined ? {} : { set }),
    why,
    steps,
  };
  return [...acts, { type: 'add-change', id, change }];
}

const LONGEST_NAME = 120;

/** The acts that take the plan for a part's value back: the change is dropped, or goes on without it. */
export function dropPlanActs(unit: Planned, ref: string): Act[] {
  return unit.changes
    .filter((c) => isPlan(c, unit) && fitsOf(c.change).includes(ref))
    .map((c) => {
      const steps = c.change.steps.filter((s) => s.do !== 'fit' || s.ref !== ref);
      return restated(c, steps.length === 0 ? { state: 'dropped' } : { steps });
    });
}

/** Parts for which another value is planned. */
export const plannedRefs = (unit: Planned): ReadonlySet<string> =>
  new Set(unit.changes.filter((c) => isPlan(c, unit)).flatMap((c) => fitsOf(c.change)));
