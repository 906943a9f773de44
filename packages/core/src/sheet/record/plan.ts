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

/**
 * The acts that plan other values for parts, under one name, with the reason for it: a change of its own. Earlier plans that fit
 * nothing but these parts are dropped, as they are replaced; where one is exactly for these, it is changed instead.
 */
export function planActs(unit: Planned, { id, values, why, purpose = 'repair' }: PlanValues): Act[] {
  const refs = Object.keys(values);
  const steps: FileChange['steps'] = Object.entries(values).map(([ref, value]) => ({
    do: 'fit',
    ref,
    value,
  }));
  const plans = unit.changes.filter((c) => isPlan(c, unit));
  const within = plans.filter(
    ({ change }) =>
      fitsOf(change).length === change.steps.length && fitsOf(change).every((r) => refs.includes(r)),
  );
  const same = within.find(({ change }) => change.steps.length === refs.length);
  const dropped = within.filter((c) => c !== same).map((c) => restated(c, { state: 'dropped' }));
  if (same) return [...dropped, restated(same, { steps, why })];
  const set = activeSet(unit);
  const change: FileChange = {
    id,
    name: `Other value${refs.length === 1 ? '' : 's'} of ${refs.join(', ')}`.slice(0, LONGEST_NAME),
    purpose,
    state: 'planned',
    ...(set === undefined ? {} : { set }),
    why,
    steps,
  };
  return [...dropped, { type: 'add-change', id, change }];
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
