import type { DeviceReport, Evaluation } from '../../circuit/devices/index.ts';
import { problem, type Problem } from '../../base/errors/index.ts';
import { RealSolver } from './real-solver.ts';
import type { System } from './system.ts';

export type OperatingPoint =
  | {
      readonly ok: true;
      /** Unknowns, x[0] is the ground. */
      readonly x: Float64Array;
      /** Newton steps taken in all. */
      readonly iterations: number;
      /** How it was found. */
      readonly method: 'direct' | 'shunt stepping' | 'source stepping';
    }
  | { readonly ok: false; readonly problem: Problem };

/** A step smaller than this part of the unknown, or this many volt or ampere, has settled. */
const RELATIVE_TOLERANCE = 1e-6;
const ABSOLUTE_TOLERANCE = 1e-10;
const STEP_LIMIT = 150;
/** Steps after which a residual of mere rounding ends the search: where next to nothing conducts, it moves a net for ever. */
const PATIENCE = 8;
const UNIT_ROUNDOFF = 2 ** -53;
/** What rounding may leave of a row, in unit roundoffs of its largest terms. */
const ROUNDED = 8;
/** First shunt from every net to ground, S; it is then taken away by decades. */
const FIRST_SHUNT_S = 1e-2;
const LAST_SHUNT_S = 1e-13;
const LEAST_SOURCE_STEP = 1e-4;

type Attempt =
  | { readonly settled: true }
  | { readonly settled: false; readonly unknown: number; readonly isSingular: boolean };

/**
 * The direct operating point: f(x) = b by Newton's method with limited junction steps; when that does not settle, with
 * a shunt at every net that is taken away step by step; then with the sources brought up from zero. Converged when
 * no unknown moves by more than 1e-6 of itself, or what is left of every equation is its rounding.
 *
 * @param search of the system, which keeps its elimination plan and its arrays
 * @param start where to begin; from zero when absent
 * @returns the solution, or the net that did not settle or has no single solution
 */
export function operatingPoint(search: PointSearch, start?: Float64Array): OperatingPoint {
  const { system } = search;
  search.iterations = 0;
  const x = start ? Float64Array.from(start) : new Float64Array(system.size + 1);
  const direct = search.newton(x, 0, 1);
  if (direct.settled) return { ok: true, x, iterations: search.iterations, method: 'direct' };
  if (direct.isSingular && system.isLinear) return { ok: false, problem: system.singularAt(direct.unknown) };
  const shunted = search.byShunts();
  if (shunted) return { ok: true, x: shunted, iterations: search.iterations, method: 'shunt stepping' };
  const sourced = search.bySources();
  if (sourced) return { ok: true, x: sourced, iterations: search.iterations, method: 'source stepping' };
  if (direct.isSingular) return { ok: false, problem: system.singularAt(direct.unknown) };
  const unknown = system.unknowns[search.lastFailure]!;
  const net = unknown.net ?? netOfPart(system, unknown.ref);
  return { ok: false, problem: problem('analysis/no-convergence', { net, parts: system.partsAt(net) }) };
}

function netOfPart(system: System, ref: string | undefined): string {
  const part = system.circuit.parts.find((p) => p.ref === ref);
  return Object.values(part?.pins ?? {}).find((n) => n !== system.circuit.ground) ?? system.circuit.ground;
}

/** The search for operating points of one system, its arrays kept from one to the next. */
export class PointSearch {
  iterations = 0;
  lastFailure = 0;
  readonly system: System;
  private readonly solver: RealSolver;
  private readonly evaluation: Evaluation;
  private readonly excitation: Float64Array;
  private readonly residual: Float64Array;
  private readonly step: Float64Array;
  private readonly terms: Float64Array;
  private readonly netRows: readonly [index: number, slot: number][];

  constructor(system: System) {
    this.system = system;
    this.solver = new RealSolver(system);
    this.evaluation = system.evaluation();
    this.excitation = new Float64Array(system.size + 1);
    this.residual = new Float64Array(system.size + 1);
    this.step = new Float64Array(system.size + 1);
    this.terms = new Float64Array(system.size + 1);
    this.netRows = system.nets().map(([, index]) => [index, system.pattern.slot(index, index)]);
  }

  /** Newton's method from x, in place. */
  newton(x: Float64Array, shuntS: number, scale: number): Attempt {
    const { system, evaluation, residual, step } = this;
    system.reset();
    system.excite(this.excitation, scale, null);
    for (let i = 0; i < STEP_LIMIT; i += 1) {
      this.iterations += 1;
      system.evaluate(x, evaluation);
      residual.fill(0);
      system.multiplyAdd(system.linear.g, x, residual);
      for (const [index, slot] of this.netRows) {
        evaluation.g[slot] = evaluation.g[slot]! + shuntS;
        residual[index] = residual[index]! + shuntS * x[index]!;
      }
      for (let row = 1; row < residual.length; row += 1) {
        residual[row] = this.excitation[row]! - residual[row]! - evaluation.f[row]!;
      }
      const wasRounding = i >= PATIENCE && this.isRounding(x);
      const failed = this.solver.factor(evaluation.g);
      if (failed >= 0) {
        this.lastFailure = failed;
        return { settled: false, unknown: failed, isSingular: true };
      }
      this.solver.solve(residual, step);
      let worst = 0;
      let isSettled = !evaluation.limited;
      let worstExcess = 0;
      for (let k = 1; k < step.length; k += 1) {
        const change = step[k]!;
        x[k] = x[k]! + change;
        const excess = Math.abs(change) / (RELATIVE_TOLERANCE * Math.abs(x[k]!) + ABSOLUTE_TOLERANCE);
        if (!(excess <= 1)) isSettled = false;
        if (!(excess <= worstExcess)) {
          worstExcess = excess;
          worst = k;
        }
      }
      this.lastFailure = worst;
      if (!Number.isFinite(worstExcess)) return { settled: false, unknown: worst, isSingular: false };
      if (isSettled || (wasRounding && !evaluation.limited)) return { settled: true };
    }
    return { settled: false, unknown: this.lastFailure, isSingular: false };
  }

  /** Whether the residual at x is no more than what rounding leaves of the terms of each row. */
  private isRounding(x: Float64Array): boolean {
    const { system, evaluation, residual, terms, excitation } = this;
    const { rowOf, columnOf } = system;
    for (let row = 0; row < terms.length; row += 1)
      terms[row] = Math.abs(excitation[row]!) + Math.abs(evaluation.f[row]!);
    for (let slot = 1; slot < rowOf.length; slot += 1) {
      const row = rowOf[slot]!;
      terms[row] = terms[row]! + Math.abs(evaluation.g[slot]! * x[columnOf[slot]!]!);
    }
    for (let row = 1; row < terms.length; row += 1)
      if (!(Math.abs(residual[row]!) <= ROUNDED * UNIT_ROUNDOFF * terms[row]!)) return false;
    return true;
  }

  byShunts(): Float64Array | null {
    const x = new Float64Array(this.system.size + 1);
    let shunt = FIRST_SHUNT_S;
    let factor = 10;
    let good: Float64Array | null = null;
    while (shunt > LAST_SHUNT_S) {
      if (this.newton(x, shunt, 1).settled) {
        good = Float64Array.from(x);
        factor = Math.min(10, factor * 1.5);
        shunt /= factor;
      } else {
        if (!good || factor < 1.05) return null;
        x.set(good);
        shunt *= factor;
        factor = Math.sqrt(factor);
        shunt /= factor;
      }
    }
    return this.newton(x, 0, 1).settled ? x : null;
  }

  bySources(): Float64Array | null {
    const x = new Float64Array(this.system.size + 1);
    let reached = 0;
    let step = 0.1;
    const good = new Float64Array(x.length);
    while (reached < 1) {
      const next = Math.min(1, reached + step);
      if (this.newton(x, 0, next).settled) {
        reached = next;
        good.set(x);
        step *= 1.5;
      } else {
        x.set(good);
        step /= 4;
        if (step < LEAST_SOURCE_STEP) return null;
      }
    }
    return x;
  }
}

export interface NetsAndParts {
  /** Volt by net. */
  readonly nets: Record<string, number>;
  readonly parts: Record<string, DeviceReport>;
}

/** Net voltages and each part's current, power and region at a solution. */
export function describe(system: System, x: Float64Array): NetsAndParts {
  const nets = Object.fromEntries(system.nets().map(([net, index]) => [net, x[index]!]));
  const parts = Object.fromEntries(system.devices.map((d) => [d.ref, d.report(x)]));
  return { nets, parts };
}
