import { solveDense } from '../../base/numeric/index.ts';
import type { GoalField, Values } from './goal-field.ts';

/** Values that need not be preferred ones, and what they make of the goals. */
export interface Relaxed {
  readonly values: Values;
  /** Sum of the firm goals' misses, each as a part of its scale; 0 inside all of them. */
  readonly miss: number;
  /** About how the goals move with the logarithm of each value, as `GoalField.slopes`. */
  readonly slopes: readonly Float64Array[] | null;
}

export interface RelaxOptions {
  /** The values that may move, by designator, with where the search begins. */
  readonly free: Values;
  /** The values that stand. */
  readonly fixed: Values;
  /** The values at hand now: moving away from them costs a little. */
  readonly home: Values;
  /** About how the goals move with the free values at the beginning, where it is known. */
  readonly slopes?: readonly Float64Array[] | null;
  /** Whether those are good enough to the end: none are taken anew. */
  readonly isRough?: boolean;
  /** Largest factor away from home. */
  readonly reach: number;
  readonly mayGoOn: () => boolean;
}

const MOST_STEPS = 16;
/** First and largest radius of trust, on the natural logarithm of a value. */
const TRUST = { first: 0.7, again: 0.3, most: 2.5, least: 5e-3 } as const;
/** What a step must do of what was predicted, for the radius to shrink or grow. */
const GAIN = { poor: 0.25, good: 0.75 } as const;
/** A step that straight slopes promise less of, as a part of what is left, is not taken. */
const LEAST_GAIN = 0.03;
/** A goal this far from the middle of its range, as a part of half its width, is met. */
const MET = 0.3;
/** What the way from home costs beside the goals: it decides between ways that meet them. */
const HOME = 1e-5;
/** Half the width of an open range, as a part of the goal's scale. */
const OPEN_MARGIN = 0.02;

/**
 * Values on a continuous scale that bring all goals into their ranges, towards the middle of those with two ends: least
 * squares on the logarithms of the values within a radius of trust (Levenberg 1944 and Marquardt 1963, the radius steered
 * as in Fletcher 1971), with slopes by the adjoint system where the readout has them, carried along from step to step (Broyden 1965) and taken
 * anew where they mislead.
 */
export function relax(field: GoalField, options: RelaxOptions): Relaxed {
  const { home, fixed, reach } = options;
  const refs = [...options.free.keys()];
  const bound = Math.log(reach);
  const start = refs.map((ref) => Math.log(home.get(ref)!));
  const clamp = (x: readonly number[]) =>
    x.map((v, i) => Math.min(start[i]! + bound, Math.max(start[i]! - bound, v)));
  const valuesAt = (x: readonly number[]): Values =>
    new Map([...fixed, ...refs.map((ref, i) => [ref, Math.exp(x[i]!)] as const)]);
  const look = (x: readonly number[]) => {
    const goals = field.at(valuesAt(x));
    const residuals = field.aims.map((_, i) => residualOf(field, goals, i));
    const away = x.reduce((sum, v, i) => sum + (v - start[i]!) ** 2, 0);
    const cost = residuals.reduce((sum, r) => sum + r ** 2, 0) + HOME * away;
    return { x, goals, residuals, cost };
  };
  let here = look(clamp(refs.map((ref) => Math.log(options.free.get(ref)!))));
  let radius: number = TRUST.first;
  let slopes: Float64Array[] | null = options.slopes?.map((row) => Float64Array.from(row)) ?? null;
  /** Whether the slopes are those of the present values, and not carried along. */
  let isFresh = false;
  for (let i = 0; i < MOST_STEPS && refs.length > 0 && options.mayGoOn(); i += 1) {
    if (isMet(field, here.goals)) break;
    if (radius < TRUST.least || slopes === null) {
      if (isFresh || (options.isRough === true && slopes !== null)) break;
      slopes = field.slopes(
        valuesAt(here.x),
        refs.map((ref, k) => ({ ref, value: Math.exp(here.x[k]!) })),
      );
      if (!slopes) break;
      isFresh = true;
      radius = Math.max(radius, TRUST.again);
    }
    const jacobian = field.aims.map((aim, g) => {
      const weight = pullOf(field, here.goals, g);
      return Float64Array.from(slopes![g]!, (s) => s * weight * Math.sqrt(aim.wish ?? 1));
    });
    const step = stepWithin(jacobian, here.residuals, radius);
    const length = Math.hypot(...step);
    const predicted = here.cost - predictedCost(jacobian, here.residuals, step);
    // The slopes point nowhere that helps.
    if (!(predicted > LEAST_GAIN * here.cost)) {
      radius = 0;
      continue;
    }
    const next = look(clamp(here.x.map((v, k) => v + step[k]!)));
    carry(slopes, here, next);
    const gained = (here.cost - next.cost) / predicted;
    const canRefresh = !isFresh && options.isRough !== true;
    if (!(gained > GAIN.poor)) radius = canRefresh ? 0 : Math.min(radius, length) / 4;
    else if (gained > GAIN.good) radius = Math.min(TRUST.most, Math.max(radius, 2 * length));
    if (!(next.cost < here.cost)) continue;
    here = next;
    isFresh = false;
  }
  return { values: valuesAt(here.x), miss: firmMiss(field, here.goals), slopes };
}

/** Slopes corrected by what a step did (Broyden 1965). */
function carry(
  slopes: readonly Float64Array[],
  before: { readonly x: readonly number[]; readonly goals: Float64Array },
  after: { readonly x: readonly number[]; readonly goals: Float64Array },
): void {
  const step = after.x.map((v, k) => v - before.x[k]!);
  const square = step.reduce((sum, s) => sum + s * s, 0);
  if (square === 0) return;
  slopes.forEach((row, g) => {
    const moved = after.goals[g]! - before.goals[g]!;
    if (!Number.isFinite(moved)) return;
    const error = (moved - step.reduce((sum, s, k) => sum + s * row[k]!, 0)) / square;
    step.forEach((s, k) => (row[k] = row[k]! + error * s));
  });
}

/** The misses of the firm goals: what a wish leaves open stands in nobody's way. */
const firmMiss = (field: GoalField, goals: Float64Array): number =>
  field.aims.reduce((sum, { wish }, i) => (wish === null ? sum + field.missOf(goals, i) : sum), 0);

/** What a goal's measure is divided by for its residual, and where it is drawn to; zero weight where it is well inside. */
function pull(field: GoalField, goals: Float64Array, index: number): { to: number; unit: number } | null {
  const { low, high, middle, scale } = field.aims[index]!;
  const value = goals[index]!;
  const half = (high - low) / 2;
  if (Number.isFinite(half)) return { to: middle, unit: Math.max(half, 1e-3 * scale) };
  const margin = OPEN_MARGIN * scale;
  const to = Number.isFinite(low) ? low + margin : high - margin;
  const isIn = Number.isFinite(low) ? value >= to : value <= to;
  return isIn ? null : { to, unit: scale };
}

function residualOf(field: GoalField, goals: Float64Array, index: number): number {
  const value = goals[index]!;
  if (Number.isNaN(value)) return Number.POSITIVE_INFINITY;
  const towards = pull(field, goals, index);
  const weight = Math.sqrt(field.aims[index]!.wish ?? 1);
  return towards === null ? 0 : (weight * (value - towards.to)) / towards.unit;
}

const pullOf = (field: GoalField, goals: Float64Array, index: number): number => {
  const towards = pull(field, goals, index);
  return towards === null ? 0 : 1 / towards.unit;
};

const isMet = (field: GoalField, goals: Float64Array): boolean =>
  field.aims.every((_, i) => Math.abs(residualOf(field, goals, i)) <= (isOpen(field, i) ? 0 : MET));

const isOpen = (field: GoalField, index: number): boolean =>
  !Number.isFinite(field.aims[index]!.high - field.aims[index]!.low);

/** Cost that straight slopes predict after a step. */
function predictedCost(
  jacobian: readonly Float64Array[],
  residuals: readonly number[],
  step: readonly number[],
): number {
  return residuals.reduce((sum, r, g) => {
    const moved = step.reduce((m, s, k) => m + s * jacobian[g]![k]!, 0);
    return sum + (r + moved) ** 2;
  }, 0);
}

const MOST_DAMPINGS = 40;

/** The least-squares step that is no longer than the radius: damped until it is. */
export function stepWithin(
  jacobian: readonly Float64Array[],
  residuals: readonly number[],
  radius: number,
): number[] {
  const n = jacobian[0]?.length ?? 0;
  const normal = new Float64Array(n * n);
  for (let a = 0; a < n; a += 1)
    for (let b = 0; b < n; b += 1)
      normal[a * n + b] = jacobian.reduce((sum, row) => sum + row[a]! * row[b]!, 0);
  const right = Float64Array.from(
    { length: n },
    (_, a) => -jacobian.reduce((sum, row, g) => sum + row[a]! * residuals[g]!, 0),
  );
  let trace = 0;
  for (let a = 0; a < n; a += 1) trace += normal[a * n + a]!;
  if (!(trace > 0)) return new Array<number>(n).fill(0);
  // A little damping makes the shortest of many steps the one that is taken.
  let damping = 1e-9 * trace;
  for (let i = 0; i < MOST_DAMPINGS; i += 1) {
    const matrix = Float64Array.from(normal);
    for (let a = 0; a < n; a += 1) matrix[a * n + a] = matrix[a * n + a]! + damping;
    const step = Float64Array.from(right);
    const singular = solveDense(matrix, step, n, new Int32Array(n));
    if (singular < 0 && Math.hypot(...step) <= radius) return [...step];
    damping *= 4;
  }
  return new Array<number>(n).fill(0);
}
