import type { Change, Step } from '@zemble/contract';
import { applyStep, placesOf, type ChangedCircuit } from '../../circuit/changes/index.ts';

/** One step of a change, in the order in which it is planned. */
export interface PlannedStep {
  readonly change: Change;
  readonly index: number;
  readonly step: Step;
}

/** Whether two steps name something in common, so that their order can matter. */
function meet(a: Step, b: Step): boolean {
  const [one, other] = [a, b].map((step) => {
    const { refs, nets } = placesOf({ steps: [step] });
    const more =
      step.do === 'add'
        ? Object.values(step.part.pins)
        : step.do === 'cut'
          ? [step.as]
          : step.do === 'lift'
            ? [step.pin]
            : [];
    return new Set([...refs.map((r) => `part ${r}`), ...[...nets, ...more].map((n) => `net ${n}`)]);
  });
  // A wire between two nets renames one of them, and a part that goes may leave a net to nobody.
  return a.do === 'join' || b.do === 'join' || [...one!].some((name) => other!.has(name));
}

/**
 * An order of steps by rank in which the circuit comes out as in the order they were planned in: of two that meet, the one
 * that was planned first stays first unless the other way round does the same.
 *
 * @param start the circuit before the first of them
 * @param rank what good hands do first, lower first
 */
export function inBenchOrder(
  start: ChangedCircuit,
  planned: readonly PlannedStep[],
  rank: (step: PlannedStep) => number,
): readonly PlannedStep[] {
  const needs = planned.map((): Set<number> => new Set());
  for (let j = 1; j < planned.length; j += 1)
    for (let i = j - 1; i >= 0; i -= 1) {
      const [first, second] = [planned[i]!.step, planned[j]!.step];
      if (!meet(first, second) || isNeeded(needs, j, i)) continue;
      // Everything ahead of the second that does not itself need the first.
      const others = planned.slice(0, j).filter((_, k) => k !== i && !isNeeded(needs, k, i));
      if (!commute(after(start, others), first, second)) needs[j]!.add(i);
    }
  const done: PlannedStep[] = [];
  const left = new Set(planned.keys());
  let now = start;
  while (left.size > 0) {
    const next = [...left]
      .filter((j) => [...needs[j]!].every((i) => !left.has(i)))
      .sort((a, b) => rank(planned[a]!) - rank(planned[b]!))
      .find((j) => applyStep(now, planned[j]!.step).ok);
    if (next === undefined) break;
    left.delete(next);
    done.push(planned[next]!);
    now = after(now, [planned[next]!]);
  }
  // Where three or more hang together in a way that no two of them show, the order that was planned holds.
  return left.size === 0 && hangTogether(now) === hangTogether(after(start, planned)) ? done : planned;
}

/** Which pins hang together, whatever their nets are called: of nets that were joined one name is left or the other. */
function hangTogether({ parts }: ChangedCircuit): string {
  const nets = new Map<string, string[]>();
  for (const { ref, pins } of parts)
    for (const [pin, net] of Object.entries(pins)) nets.set(net, [...(nets.get(net) ?? []), `${ref}.${pin}`]);
  return [...nets.values()]
    .map((pins) => pins.sort().join(' '))
    .sort()
    .join('|');
}

/** Whether a step needs an earlier one, by itself or through another. */
const isNeeded = (needs: readonly ReadonlySet<number>[], step: number, earlier: number): boolean =>
  needs[step]!.has(earlier) || [...needs[step]!].some((k) => isNeeded(needs, k, earlier));

/** A circuit after steps; one that cannot be made is passed over. */
function after(start: ChangedCircuit, steps: readonly PlannedStep[]): ChangedCircuit {
  return steps.reduce((now, { step }) => {
    const made = applyStep(now, step);
    return made.ok ? made.circuit : now;
  }, start);
}

/** Whether two steps make the same circuit in either order. */
function commute(start: ChangedCircuit, first: Step, second: Step): boolean {
  const [one, other] = [both(start, first, second), both(start, second, first)];
  return one !== undefined && other !== undefined && one === other;
}

function both(start: ChangedCircuit, first: Step, second: Step): string | undefined {
  const a = applyStep(start, first);
  const b = a.ok ? applyStep(a.circuit, second) : a;
  return b.ok ? fingerprint(b.circuit) : undefined;
}

const fingerprint = ({ parts, renamed }: ChangedCircuit): string =>
  JSON.stringify([
    [...parts]
      .sort((a, b) => a.ref.localeCompare(b.ref))
      .map(({ ref, pins, value, model }) => [ref, Object.entries(pins).sort(), value, model]),
    [...renamed].sort(),
  ]);
