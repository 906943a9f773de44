import { problem, type Problem } from '../../base/errors/index.ts';
import { applyStep, unmeasuredPart, type ChangedCircuit } from '../../circuit/changes/index.ts';
import type { PlannedStep } from './order.ts';
import type { Part } from '../../circuit/circuit/index.ts';
import { nameOf } from './part-words.ts';

/** What is soldered of several plans, and which of their steps are not, each with its reason. */
export interface NetWork {
  readonly steps: readonly PlannedStep[];
  /** What is not soldered, by the step that is soldered instead. */
  readonly replaced: ReadonlyMap<PlannedStep, readonly PlannedStep[]>;
  readonly problems: readonly Problem[];
}

/**
 * The net of what is planned: of several fits of one part only the last is soldered, and none where it ends as what is in there;
 * what is added and then fitted otherwise is added as it ends. A
 * step that is ticked already was done by hands, and stays.
 *
 * @param start the circuit before the first of them
 */
export function netOf(start: ChangedCircuit, all: readonly PlannedStep[]): NetWork {
  const problems: Problem[] = [];
  const replaced = new Map<PlannedStep, PlannedStep[]>();
  const planned = addedAsTheyEnd(all, replaced, problems);
  const last = new Map<string, PlannedStep>();
  const times = new Map<string, number>();
  for (const each of planned)
    if (each.step.do === 'fit' && each.step.done === undefined) {
      last.set(each.step.ref, each);
      times.set(each.step.ref, (times.get(each.step.ref) ?? 0) + 1);
    }
  const steps = planned.filter((each) => {
    const { step, change } = each;
    if (step.do !== 'fit' || step.done !== undefined || times.get(step.ref) === 1) return true;
    const final = last.get(step.ref)!;
    if (final !== each) {
      if (!coversAll(final, each)) return true;
      replaced.set(final, [...(replaced.get(final) ?? []), each]);
      problems.push(
        problem('change/replaced', { text: change.name, ref: step.ref, detail: final.change.name }),
      );
      return false;
    }
    const [before, after] = [start, applied(start, each)].map((circuit) => {
      const part = unmeasuredPart(circuit, step.ref);
      return part && nameOf(part);
    });
    const isThere =
      before !== undefined &&
      before === after &&
      !isDrifted(start, step.ref) &&
      planned.every((p) => !isDoneFit(p, step.ref));
    if (isThere) problems.push(problem('change/ends-as-it-is', { text: change.name, detail: after }));
    return !isThere;
  });
  return { steps, replaced, problems };
}

/** Steps in which each part that is added, and fitted otherwise before it is there, is added as it ends. */
function addedAsTheyEnd(
  all: readonly PlannedStep[],
  replaced: Map<PlannedStep, PlannedStep[]>,
  problems: Problem[],
): readonly PlannedStep[] {
  const gone = new Set<PlannedStep>();
  const steps = all.map((each, i) => {
    const { step, change } = each;
    if (step.do !== 'add' || step.done !== undefined) return each;
    const later = all.slice(i + 1);
    const end = later.findIndex(({ step: s }) => s.do === 'remove' && s.ref === step.part.ref);
    const fits = later.slice(0, end < 0 ? undefined : end).filter((p) => isOpenFit(p, step.part.ref));
    if (fits.length === 0) return each;
    const merged: PlannedStep = { ...each, step: { ...step, part: fits.reduce(fittedInto, step.part) } };
    replaced.set(merged, fits);
    for (const fit of fits) {
      gone.add(fit);
      problems.push(
        problem('change/replaced', { text: change.name, ref: step.part.ref, detail: fit.change.name }),
      );
    }
    return merged;
  });
  return steps.filter((each) => !gone.has(each));
}

const isOpenFit = ({ step }: PlannedStep, ref: string): boolean =>
  step.do === 'fit' && step.ref === ref && step.done === undefined;

/** A part that is added, as a later fit has it. */
function fittedInto(part: Part, { step }: PlannedStep): Part {
  if (step.do !== 'fit') return part;
  const { params, ...fields } = step.part ?? {};
  const { params: was, ...rest } = part;
  // Parameters that were given belong to the type that was in.
  const own = { ...(fields.model === undefined ? was : undefined), ...(params as Part['params']) };
  return {
    ...rest,
    ...fields,
    pins: part.pins,
    ...(step.value === undefined ? {} : { marked: step.value }),
    ...(Object.keys(own).length > 0 ? { params: own } : {}),
  } as Part;
}

/** Whether a later fit says all that an earlier one does: what it leaves open would be as the earlier one had it. */
const coversAll = ({ step: later }: PlannedStep, { step: earlier }: PlannedStep): boolean =>
  later.do === 'fit' &&
  earlier.do === 'fit' &&
  (later.value !== undefined || earlier.value === undefined) &&
  Object.keys(earlier.part ?? {}).every((field) => field in (later.part ?? {}));

/** A part that measures otherwise than is printed on it is not as good as a new one. */
const DRIFTED = 0.01;
function isDrifted(circuit: ChangedCircuit, ref: string): boolean {
  const now = circuit.parts.find((p) => p.ref === ref)?.value;
  const printed = unmeasuredPart(circuit, ref)?.value;
  return typeof now === 'number' && typeof printed === 'number' && Math.abs(now / printed - 1) > DRIFTED;
}

const isDoneFit = ({ step }: PlannedStep, ref: string): boolean =>
  step.do === 'fit' && step.ref === ref && step.done !== undefined;

function applied(start: ChangedCircuit, { step }: PlannedStep): ChangedCircuit {
  const made = applyStep(start, step);
  return made.ok ? made.circuit : start;
}
