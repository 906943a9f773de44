import type { Evaluation } from '../../circuit/devices/index.ts';
import { solveDense, solveDenseAgain } from '../../base/numeric/index.ts';
import { baseOf, ReducedSystem, type ReducedStep, type Spread } from './reduced-system.ts';
import type { System } from './system.ts';

const NEWTON_LIMIT = 30;
/** A device that limits its steps is where it is led after fewer than this. */
const MOST_LOOKS_BACK = 200;
/**
 * A Newton step this small ends the search: what is left of the error is its square over kT/q, a thousandth of the local
 * error allowed.
 */
const NEWTON_RELATIVE = 1e-5;
const NEWTON_ABSOLUTE = 2e-5;
/** What a Newton step may leave behind, as a part of the local error allowed. */
const CURVED_REST = 0.002;
/** Steps larger than this, against the local error allowed, are followed by another whatever the curvature. */
const LARGEST_CURVED_STEP = 100;

/** The local error that a run allows: a part of how far each unknown swings, and a little. */
export interface Allowance {
  readonly relative: number;
  readonly absolute: number;
  readonly peak: Float64Array;
}

/** Newton's method on the reduced equations f(x) + scale q(x) = b of one step. */
export class StepSolver {
  /** Where the search failed last. */
  worst = 0;
  /** Whether the Newton step before this one moved nothing. */
  private wasStill = false;
  private readonly system: System;
  private readonly reduced: ReducedSystem;
  private readonly allowance: Allowance;
  private readonly evaluation: Evaluation;
  /** Unknowns 1 up to this are nets. */
  private readonly lastNet: number;
  /** What the unknowns are where those solved for are zero. */
  private readonly base: Float64Array;
  /** Where the devices were evaluated last; the unknowns that they look at only. */
  private readonly before: Float64Array;
  private readonly jacobian: Float64Array;
  /** Right-hand side of the block, and its solution. */
  private readonly solved: Float64Array;
  private readonly exchanged: Int32Array;
  /** The devices' entries g + scale c as last taken. */
  private readonly slope: Float64Array;
  /** Slots of the constant part of C that hold something. */
  private readonly chargeSlots: Int32Array;

  constructor(system: System, allowance: Allowance) {
    this.system = system;
    this.reduced = new ReducedSystem(system);
    this.allowance = allowance;
    this.evaluation = system.evaluation(false);
    this.lastNet = system.nets().length - 1;
    const size = system.size + 1;
    this.base = new Float64Array(size);
    this.before = new Float64Array(size);
    this.solved = new Float64Array(size);
    this.jacobian = new Float64Array(size * size);
    this.exchanged = new Int32Array(size);
    this.slope = new Float64Array(system.loadedSlots.length);
    const { c } = system.linear;
    this.chargeSlots = Int32Array.from(Array.from(c.keys()).filter((slot) => slot > 0 && c[slot] !== 0));
  }

  /**
   * Solves the equations of a step.
   *
   * @param b right-hand side; destroyed
   * @param x where to start; the solution
   * @returns the equations solved, or null: `worst` then says where there was no solution
   */
  solve(scale: number, b: Float64Array, x: Float64Array): ReducedStep | null {
    const { system, reduced, evaluation, base } = this;
    const step = reduced.at(scale);
    if (typeof step === 'number') {
      this.worst = step;
      return null;
    }
    system.evaluateLoaded(x, evaluation);
    reduced.steady(evaluation.f, b);
    reduced.reduce(step, b);
    baseOf(step, b, base);
    this.wasStill = false;
    for (let looks = 1; ; looks += 1) {
      const singular = this.newtonStep(step, scale, b, x);
      if (singular >= 0) {
        this.worst = step.reduction.columns[singular]!;
        return null;
      }
      if (this.isSettled(x) && !evaluation.limited) break;
      if (looks === NEWTON_LIMIT) return null;
      system.evaluateLoaded(x, evaluation);
    }
    this.spreadOut(step, x);
    this.finishTails(step, scale, b, x);
    for (let k = 1; k < x.length; k += 1) {
      if (Number.isFinite(x[k]!)) continue;
      this.worst = k;
      return null;
    }
    return step;
  }

  /**
   * Leads the devices back to a point after a search that failed: what limits its own steps remembers where that search went, and
   * would begin the next one there.
   */
  leadBackTo(x: Float64Array): void {
    for (let looks = 0; looks < MOST_LOOKS_BACK; looks += 1) {
      this.system.evaluateLoaded(x, this.evaluation);
      if (!this.evaluation.limited) return;
    }
  }

  /** Charges at a point, into `into`. */
  charges(x: Float64Array, into: Float64Array): void {
    this.system.evaluateLoaded(x, this.evaluation);
    this.storedAt(x, into);
  }

  /** Charges at the solution just found: the devices' follow the last Newton step by their linearisation. */
  chargesOfSolution(x: Float64Array, into: Float64Array): void {
    this.storedAt(x, into);
    const { rowOf, columnOf, loadedSlots } = this.system;
    const { c } = this.evaluation;
    const { before } = this;
    for (let i = 0; i < loadedSlots.length; i += 1) {
      const slot = loadedSlots[i]!;
      const value = c[slot]!;
      if (value === 0) continue;
      const column = columnOf[slot]!;
      into[rowOf[slot]!] = into[rowOf[slot]!]! + value * (x[column]! - before[column]!);
    }
  }

  /**
   * What a small residual in the equations just solved does to the unknowns.
   *
   * @param residual by row; destroyed
   * @param delta by unknown
   */
  carry(step: ReducedStep, residual: Float64Array, delta: Float64Array): void {
    const { rows } = step.reduction;
    const { solved, base } = this;
    this.reduced.reduce(step, residual);
    baseOf(step, residual, base);
    const n = rows.length;
    for (let i = 0; i < n; i += 1) solved[i] = residual[rows[i]!]!;
    const { at, column } = step.reduction.loaded;
    const { slope } = this;
    for (let e = 0; e < at.length; e += 1) solved[at[e]!] = solved[at[e]!]! - slope[e]! * base[column[e]!]!;
    solveDenseAgain(this.jacobian, solved, n, this.exchanged);
    this.spreadOut(step, delta);
  }

  /**
   * One Newton step: the block that is left, from the devices as evaluated at `x`, into `solved`; the unknowns that devices
   * look at move in `x`. Answers -1, or which unknown is singular.
   */
  private newtonStep(step: ReducedStep, scale: number, b: Float64Array, x: Float64Array): number {
    const { jacobian, solved, base, before, slope, reduced } = this;
    const { f, q, g, c } = this.evaluation;
    const { block } = step;
    const { starts, of, factors } = step.spread;
    const { rows, loaded } = step.reduction;
    const n = rows.length;
    for (let i = 0; i < n; i += 1) {
      const row = rows[i]!;
      solved[i] = b[row]! - f[row]! - scale * q[row]!;
    }
    for (let i = 0; i < block.length; i += 1) jacobian[i] = block[i]!;
    const { seen } = reduced;
    const { at, slot, column } = loaded;
    for (let e = 0; e < slot.length; e += 1) {
      const value = g[slot[e]!]! + scale * c[slot[e]!]!;
      slope[e] = value;
      if (value === 0) continue;
      const k = column[e]!;
      solved[at[e]!] = solved[at[e]!]! + value * (x[k]! - base[k]!);
      const row = at[e]! * n;
      const end = starts[k + 1]!;
      for (let i = starts[k]!; i < end; i += 1)
        jacobian[row + of[i]!] = jacobian[row + of[i]!]! + value * factors[i]!;
    }
    const singular = solveDense(jacobian, solved, n, this.exchanged);
    if (singular >= 0) return singular;
    for (let i = 0; i < seen.length; i += 1) {
      const k = seen[i]!;
      before[k] = x[k]!;
      x[k] = this.followed(step.spread, k);
    }
    return -1;
  }

  /**
   * Whether the Newton step just taken was the last that is needed: it vanished, or what is left of its error by the
   * devices' curvature is little against the local error allowed.
   */
  private isSettled(x: Float64Array): boolean {
    const { before } = this;
    const { seen } = this.reduced;
    const { relative, absolute, peak } = this.allowance;
    let isStill = true;
    let largest = 0;
    for (let i = 0; i < seen.length; i += 1) {
      const k = seen[i]!;
      const [moved, size] = [Math.abs(x[k]! - before[k]!), Math.abs(x[k]!)];
      if (!Number.isFinite(size)) {
        this.worst = k;
        return false;
      }
      if (moved > NEWTON_RELATIVE * size + NEWTON_ABSOLUTE) {
        isStill = false;
        this.worst = k;
      }
      largest = Math.max(largest, moved / (relative * peak[k]! + absolute));
    }
    if (!isStill) this.wasStill = false;
    if (!isStill && largest > LARGEST_CURVED_STEP) return false;
    const { loading } = this.system;
    let isAcrossKink = false;
    for (let i = 0; i < loading.length; i += 1) {
      const device = loading[i]!;
      const curvature = device.curvature?.(before, x);
      if (!isStill && (curvature ?? Number.POSITIVE_INFINITY) * largest > CURVED_REST) return false;
      isAcrossKink ||= curvature === Number.POSITIVE_INFINITY;
    }
    // Across a kink the smallest step may be the first of a long way: it is the last when the one before it was as small.
    const wasStill = this.wasStill;
    this.wasStill = isStill;
    return !isAcrossKink || wasStill;
  }

  /** All unknowns from the base and those solved for. */
  private spreadOut({ spread }: ReducedStep, x: Float64Array): void {
    for (let k = 1; k < x.length; k += 1) x[k] = this.followed(spread, k);
  }

  private followed({ starts, of, factors }: Spread, k: number): number {
    const { solved } = this;
    const end = starts[k + 1]!;
    let value = this.base[k]!;
    for (let i = starts[k]!; i < end; i += 1) value += factors[i]! * solved[of[i]!]!;
    return value;
  }

  /** The unknowns that only say what flows at a held net. */
  private finishTails(
    { reduction, values }: ReducedStep,
    scale: number,
    b: Float64Array,
    x: Float64Array,
  ): void {
    const { f, q, g, c } = this.evaluation;
    const { tails, tailLoaded } = reduction;
    for (let i = 0; i < tails.length; i += 1) {
      const { row, column, slots } = tails[i]!;
      let sum = b[row]! - f[row]! - scale * q[row]!;
      for (let j = 0; j < slots.length; j += 1)
        if (slots[j] !== 0) sum -= values[slots[j]!]! * this.solved[j]!;
      x[column] = sum;
    }
    const { at, slot, column: acting } = tailLoaded;
    for (let e = 0; e < slot.length; e += 1) {
      const value = g[slot[e]!]! + scale * c[slot[e]!]!;
      if (value === 0) continue;
      const { column } = tails[at[e]!]!;
      const k = acting[e]!;
      x[column] = x[column]! - value * (x[k]! - this.before[k]!);
    }
    for (let i = 0; i < tails.length; i += 1) {
      const { column, slot: own } = tails[i]!;
      x[column] = x[column]! / values[own]!;
    }
  }

  /** The constant capacitances' charges at a point, and the devices' as last evaluated. */
  private storedAt(x: Float64Array, into: Float64Array): void {
    const { q } = this.evaluation;
    for (let row = 0; row < q.length; row += 1) into[row] = q[row]!;
    const { rowOf, columnOf } = this.system;
    const { c } = this.system.linear;
    const { chargeSlots } = this;
    for (let i = 0; i < chargeSlots.length; i += 1) {
      const slot = chargeSlots[i]!;
      const row = rowOf[slot]!;
      into[row] = into[row]! + c[slot]! * x[columnOf[slot]!]!;
    }
  }
}
