import type { ReadoutAnswer } from '../../analysis/readouts/index.ts';
import type { GoalField } from './goal-field.ts';
import type { ValueChange } from './value-change.ts';

/** Changes with what they make of the goals. */
export interface Candidate {
  readonly changes: readonly ValueChange[];
  /** The goals' answers, in their order. */
  readonly goals: readonly ReadoutAnswer[];
  /** What stands against it: see COST. */
  readonly cost: number;
}

/** What a search came to. */
export interface Searched {
  readonly candidates: readonly Candidate[];
  /** Share of the ways that were tried to the end. */
  readonly tried: number;
  /** Whether every way was tried or ruled out. */
  readonly isWhole: boolean;
}

/**
 * What makes a proposal come later. The order of the first three is what matters: a goal that is met comes before one that
 * is nearly met, harm to another readout outweighs soldering one part more; the rest breaks ties (common sense, tuned by
 * hand on the demo units).
 */
export const COST = {
  outside: 5,
  /** For a miss as large as the whole wanted change. */
  miss: 30,
  /** For a wish of weight 1 that is not met, and for a miss of it as large as the whole wanted change. */
  wishOutside: 0.5,
  wishMiss: 3,
  harm: 3,
  limit: 4,
  mend: -1,
  part: 1,
  /** For a decade of travel. */
  travel: 0.6,
  /** For a part that must be bought. */
  buy: 0.5,
} as const;

/** A miss of a firm goal beyond this part of the wanted change is not shown. */
const LARGEST_MISS = 0.35;

/** What the changes themselves cost. */
export const costOfChanges = (changes: readonly ValueChange[]): number =>
  changes.reduce(
    (sum, c) =>
      sum +
      COST.part * c.of.length +
      COST.buy * (c.places?.filter((p) => p === null).length ?? 0) +
      COST.travel * Math.abs(Math.log10(c.value / c.from)),
    0,
  );

/** Changes as a candidate; null where a firm goal has no value or is missed by far. */
export function candidateOf(
  field: GoalField,
  changes: readonly ValueChange[],
  goals: readonly ReadoutAnswer[],
): Candidate | null {
  const measured = Float64Array.from(goals, (answer, i) => field.measured(answer, i));
  let cost = costOfChanges(changes);
  for (const [i, { wish }] of field.aims.entries()) {
    const miss = field.missOf(measured, i);
    if (wish === null) {
      if (!(miss <= LARGEST_MISS)) return null;
      cost += (miss > 0 ? COST.outside : 0) + COST.miss * miss;
    } else {
      cost += wish * ((miss > 0 ? COST.wishOutside : 0) + COST.wishMiss * Math.min(1, miss));
    }
  }
  return { changes, goals, cost };
}

/** The same values once, in the order given. */
export function distinct(candidates: readonly Candidate[]): Candidate[] {
  const seen = new Set<string>();
  return candidates.filter((p) => {
    const key = keyOf(p.changes);
    return seen.has(key) ? false : seen.add(key);
  });
}

export const keyOf = (changes: readonly ValueChange[]): string =>
  changes
    .map((c) => `${c.ref} ${c.made} ${c.of.map((v) => v.toPrecision(6)).join(' ')}`)
    .sort()
    .join(' ');
