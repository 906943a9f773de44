import {
  backReal,
  factorReal,
  planPartialElimination,
  reduceReal,
  type PartialPlan,
} from '../numeric/index.ts';
import type { System } from './system.ts';

/** A plan of what is eliminated, and where the devices' entries lie in the block that is left. */
interface Reduction {
  readonly partial: PartialPlan;
  /** Position in the block of each of the system's `loadedSlots`. */
  readonly loadedAt: Int32Array;
}

/** The constant part for one step length: what was eliminated, and the block that is left. */
export interface ReducedStep {
  readonly reduction: Reduction;
  readonly values: Float64Array;
  /** Row by row; `rows.length` squared. */
  readonly block: Float64Array;
}

/** Step lengths of which the factors are kept. */
const KEPT_STEPS = 12;
/** A plan is used for scales within about this many decades of the one it was made for. */
const DECADES_A_PLAN = 3;

/**
 * The constant part G + scale C of a system, eliminated once for each step length down to the few unknowns that
 * non-linear devices touch: Newton's method then works on a small dense block, and the others follow. A circuit without
 * such devices leaves next to nothing.
 */
export class ReducedSystem {
  private readonly system: System;
  private readonly kept: ReadonlySet<number>;
  private readonly constantSlots: Int32Array;
  private readonly constant: Float64Array;
  private readonly columnScale: Float64Array;
  private readonly plans = new Map<number, Reduction>();
  private readonly steps = new Map<number, ReducedStep>();

  constructor(system: System) {
    this.system = system;
    const { rowOf, columnOf, loadedSlots } = system;
    this.kept = new Set([...loadedSlots].flatMap((slot) => [rowOf[slot]!, columnOf[slot]!]));
    const { g, c } = system.linear;
    const slots = Array.from(g.keys()).slice(1);
    this.constantSlots = Int32Array.from(slots.filter((s) => c[s] !== 0 || g[s] !== 0));
    this.constant = new Float64Array(g.length);
    this.columnScale = new Float64Array(system.size + 1);
  }

  /**
   * The reduced equations for a scale, from those kept where they are there.
   *
   * @returns the step, or the unknown at which the constant part is singular
   */
  at(scale: number): ReducedStep | number {
    const known = this.steps.get(scale);
    if (known) return known;
    const made = this.make(scale);
    if (typeof made === 'number') return made;
    if (this.steps.size >= KEPT_STEPS) this.steps.delete(this.steps.keys().next().value!);
    this.steps.set(scale, made);
    return made;
  }

  private make(scale: number): ReducedStep | number {
    const { constant, constantSlots, columnScale } = this;
    const { g, c } = this.system.linear;
    const { columnOf } = this.system;
    columnScale.fill(0);
    for (let i = 0; i < constantSlots.length; i += 1) {
      const slot = constantSlots[i]!;
      const value = g[slot]! + scale * c[slot]!;
      constant[slot] = value;
      const column = columnOf[slot]!;
      columnScale[column] = Math.max(columnScale[column]!, Math.abs(value));
    }
    const decade = Math.round(Math.log10(scale) / DECADES_A_PLAN);
    const planned = this.plans.get(decade) ?? this.plan();
    this.plans.set(decade, planned);
    const step = this.factored(planned);
    if (typeof step !== 'number') return step;
    // A pivot of the old plan vanished at this scale: the plan is made for it.
    const anew = this.plan();
    this.plans.set(decade, anew);
    return this.factored(anew);
  }

  private plan(): Reduction {
    const { pattern, size, loadedSlots, rowOf, columnOf } = this.system;
    const partial = planPartialElimination(pattern, size, this.constant, this.kept);
    const { rows, columns } = partial;
    const rowAt = new Map([...rows].map((row, i) => [row, i] as const));
    const columnAt = new Map([...columns].map((column, i) => [column, i] as const));
    const loadedAt = loadedSlots.map(
      (slot) => rowAt.get(rowOf[slot]!)! * columns.length + columnAt.get(columnOf[slot]!)!,
    );
    return { partial, loadedAt };
  }

  private factored(reduction: Reduction): ReducedStep | number {
    const { plan, slots } = reduction.partial;
    const values = new Float64Array(plan.length);
    values.set(this.constant);
    const failed = factorReal(plan, values, this.columnScale);
    if (failed >= 0) return plan.columns[failed]!;
    const block = new Float64Array(slots.length);
    slots.forEach((slot, i) => (block[i] = slot === 0 ? 0 : values[slot]!));
    return { reduction, values, block };
  }
}

/** Takes what is eliminated off a right-hand side, in place. */
export const reduce = ({ reduction, values }: ReducedStep, b: Float64Array): void =>
  reduceReal(reduction.partial.plan, values, b);

/** The eliminated unknowns into `x`, which has the others, from the reduced right-hand side. */
export const expand = ({ reduction, values }: ReducedStep, b: Float64Array, x: Float64Array): void =>
  backReal(reduction.partial.plan, values, b, x);
