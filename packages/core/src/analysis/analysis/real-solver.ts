import { factorReal, planElimination, solveReal, type EliminationPlan } from '../../base/numeric/index.ts';
import type { System } from './system.ts';

/** Solves the system's real matrices: plans once, replays, and plans anew when a pivot of the old plan vanishes. */
export class RealSolver {
  private readonly system: System;
  private plan: EliminationPlan | null = null;
  private values = new Float64Array(0);
  private readonly scale: Float64Array;

  constructor(system: System) {
    this.system = system;
    this.scale = new Float64Array(system.size + 1);
  }

  /**
   * Factors a matrix given by slots.
   * @returns -1, or the unknown at which it is singular to working precision
   */
  factor(matrix: Float64Array): number {
    const columns = this.system.columnOf;
    for (let i = 0; i < this.scale.length; i += 1) this.scale[i] = 0;
    for (let slot = 1; slot < columns.length; slot += 1) {
      const column = columns[slot]!;
      const magnitude = Math.abs(matrix[slot]!);
      if (magnitude > this.scale[column]!) this.scale[column] = magnitude;
    }
    if (this.plan) {
      this.fill(matrix);
      if (factorReal(this.plan, this.values, this.scale) < 0) return -1;
    }
    const planned = planElimination(this.system.pattern, this.system.size, matrix);
    if (!planned.ok) return planned.column;
    this.plan = planned.plan;
    this.values = new Float64Array(planned.plan.length);
    this.fill(matrix);
    const failed = factorReal(this.plan, this.values, this.scale);
    if (failed < 0) return -1;
    const column = this.plan.columns[failed]!;
    this.plan = null;
    return column;
  }

  private fill(matrix: Float64Array): void {
    const { values } = this;
    const known = matrix.length;
    for (let slot = 1; slot < known; slot += 1) values[slot] = matrix[slot]!;
    for (let slot = known; slot < values.length; slot += 1) values[slot] = 0;
  }

  /** Solves with the last factors; `b` is destroyed. */
  solve(b: Float64Array, x: Float64Array): void {
    solveReal(this.plan!, this.values, b, x);
  }
}
