import type { Evaluation } from '../../circuit/devices/index.ts';
import { problem, type Problem } from '../../base/errors/index.ts';
import {
  factorReal,
  gmres,
  planElimination,
  solveReal,
  type EliminationPlan,
} from '../../base/numeric/index.ts';
import { naturalFrequencies } from './poles.ts';
import type { AnalysisSession } from './session.ts';
import type { System } from './system.ts';

export type PeriodicOutcome =
  | {
      readonly ok: true;
      /** The unknowns at evenly spaced times of one period, from its beginning. */
      readonly points: readonly Float64Array[];
    }
  | { readonly ok: false; readonly problem: Problem };

export interface PeriodicOptions {
  readonly periodS: number;
  /** Where the search for the period's beginning begins; the operating point when absent. */
  readonly start?: Float64Array | undefined;
}

/** Steps of a period. All are of one length: a linear circuit then answers a sine with a sine, to the last digits. */
const STEPS = 240;
/** Periods run through before the first correction, so that what is fast has settled. */
const FIRST_PERIODS = 1;
const MOST_CORRECTIONS = 30;
/** A correction that leaves more than this part of the miss has reached what rounding allows. */
const STANDSTILL = 0.5;
/** A period closes when it ends where it began to within this part of each unknown's swing and size. */
const CLOSED = 2e-8;
const NEARLY_CLOSED = 1e-6;
/** Dimension of the space in which a correction is looked for: the slow motions of a circuit are few. */
const KRYLOV = 80;
/** What a correction may leave: the next one takes it up, and a linear circuit is right with two. */
const KRYLOV_TOLERANCE = 1e-6;
const NEWTON_LIMIT = 40;
const NEWTON_RELATIVE = 1e-8;
const NEWTON_ABSOLUTE = 1e-9;
/** A step that Newton's method cannot take is halved at most this often. */
const MOST_HALVINGS = 10;
/** A motion that grows by this part in one period is a swing of the circuit's own. */
const GROWTH = 1e-5;

/**
 * Diagonally implicit Runge-Kutta method of three stages and order 3, stiffly accurate and L-stable (Alexander 1977):
 * what has no memory stands right at the end of every step.
 */
const GAMMA = 0.435866521508459;
const STAGES = [
  { timeS: GAMMA, of: [] },
  { timeS: (1 + GAMMA) / 2, of: [(1 - GAMMA) / 2] },
  { timeS: 1, of: [(-6 * GAMMA ** 2 + 16 * GAMMA - 1) / 4, (6 * GAMMA ** 2 - 20 * GAMMA + 5) / 4] },
] as const;

/** One stage as it was solved: its linearisation, to carry small changes through the period. */
interface Stage {
  readonly h: number;
  /** Which of the three it is. */
  readonly index: number;
  readonly plan: EliminationPlan;
  readonly factors: Float64Array;
  /** dq/dx by slot. */
  readonly c: Float64Array;
}

/**
 * The periodic steady state of a circuit under sources of one period: the beginning of the period is moved until it
 * ends where it began, by Newton's method on the map over one period (Aprille and Trick 1972), whose equations are
 * solved by products with its linearisation only (Telichevesky, Kundert and White 1995). Whatever its time constants, a
 * circuit is then where it would be after any length of time.
 *
 * @returns the period, or why there is none: no operating point, a step that cannot be taken, a circuit that oscillates
 * or latches by itself, or one that does not close
 */
export function periodicSteadyState(session: AnalysisSession, options: PeriodicOptions): PeriodicOutcome {
  const point = session.tryOperatingPoint();
  if (!point.ok) return { ok: false, problem: point.problem };
  const { poles } = naturalFrequencies(session);
  if (poles.some((p) => p.re * options.periodS > GROWTH))
    return {
      ok: false,
      problem: problem('analysis/no-steady-state', { detail: 'the circuit oscillates or latches by itself' }),
    };
  return new Shooting(session, options.periodS).run(options.start ?? point.x, options.start !== undefined);
}

class Shooting {
  private readonly session: AnalysisSession;
  private readonly system: System;
  private readonly periodS: number;
  private readonly evaluation: Evaluation;
  private readonly size: number;
  private readonly scale: Float64Array;
  private plan: EliminationPlan | null = null;
  /** The matrix of a stage by slots, and its factors by the plan. */
  private readonly matrix: Float64Array;
  private factors = new Float64Array(0);
  private stages: Stage[] = [];
  private failedAt = 0;
  /** Slots of C that may hold something: the constant ones, and those of devices whose charge depends on the solution. */
  private readonly chargeSlots: Int32Array;
  private readonly work: {
    readonly x: Float64Array;
    readonly q: Float64Array;
    readonly known: Float64Array;
    readonly right: Float64Array;
    readonly delta: Float64Array;
    readonly rates: readonly Float64Array[];
  };

  constructor(session: AnalysisSession, periodS: number) {
    this.session = session;
    this.system = session.system;
    this.periodS = periodS;
    this.evaluation = this.system.evaluation(false);
    this.size = this.system.size + 1;
    const array = () => new Float64Array(this.size);
    this.scale = array();
    this.work = {
      x: array(),
      q: array(),
      known: array(),
      right: array(),
      delta: array(),
      rates: STAGES.map(array),
    };
    this.matrix = new Float64Array(this.system.pattern.length);
    const { c } = this.system.linear;
    const constant = Array.from(c.keys()).filter((slot) => slot > 0 && c[slot] !== 0);
    this.chargeSlots = Int32Array.from(new Set([...constant, ...this.system.loadedSlots]));
  }

  run(start: Float64Array, isNear: boolean): PeriodicOutcome {
    this.system.reset();
    let begin = Float64Array.from(start);
    // A start that was given is near; an operating point is not.
    for (let i = 0; i < (isNear ? 0 : FIRST_PERIODS); i += 1) {
      const points = this.period(begin, false);
      if (!points) return this.stuck();
      begin = Float64Array.from(points[STEPS]!);
    }
    let points = this.period(begin, true);
    for (let i = 0; points && i < MOST_CORRECTIONS; i += 1) {
      const weight = weights(points);
      const miss = missOf(points, weight);
      if (largest(miss) <= CLOSED) return this.finish(points);
      const firstC = this.chargeSlopes(begin);
      const correction = gmres(
        (v, out) => this.oneMinusMap(v, out, weight, firstC),
        miss,
        KRYLOV,
        KRYLOV_TOLERANCE,
      ).x;
      const before = norm(miss);
      let next: Float64Array[] | null = null;
      // A correction that makes it worse is shortened.
      for (let share = 1; share > LEAST_SHARE; share /= 2) {
        const moved = begin.map((v, k) => v + share * correction[k]! * weight[k]!);
        const tried = this.period(moved, true);
        if (!tried) continue;
        const isBetter = norm(missOf(tried, weight)) < before;
        if (!isBetter && largest(miss) > NEARLY_CLOSED && share > 2 * LEAST_SHARE) continue;
        [next, begin] = [tried, moved];
        break;
      }
      // What rounding leaves can be moved no further.
      if (
        points &&
        (!next || norm(missOf(next, weight)) > STANDSTILL * before) &&
        largest(miss) <= NEARLY_CLOSED
      )
        return this.finish(points);
      points = next;
    }
    return points ? this.none('the swing does not repeat itself') : this.stuck();
  }

  private finish(points: readonly Float64Array[]): PeriodicOutcome {
    const last = points[STEPS]!;
    for (const device of this.system.devices)
      if (device.settle?.(last, this.periodS) === true || (device.dueS?.() ?? Infinity) < Infinity)
        return this.none(`${device.ref} switches by itself`);
    return { ok: true, points: points.slice(0, STEPS) };
  }

  private none(detail: string): PeriodicOutcome {
    return { ok: false, problem: problem('analysis/no-steady-state', { detail }) };
  }

  private stuck(): PeriodicOutcome {
    const unknown = this.system.unknowns[this.failedAt]!;
    const part = this.session.circuit.parts.find((p) => p.ref === unknown.ref);
    const net = unknown.net ?? Object.values(part?.pins ?? {})[0] ?? this.session.circuit.ground;
    return {
      ok: false,
      problem: problem('analysis/no-time-step', {
        net,
        parts: this.system.partsAt(net),
        detail: 'some point of the period',
      }),
    };
  }

  /** Runs through one period from x; keeps every stage's linearisation when asked. Null when a step cannot be taken. */
  private period(x: Float64Array, keeps: boolean): Float64Array[] | null {
    this.stages = [];
    const points = [x];
    const h = this.periodS / STEPS;
    for (let step = 0; step < STEPS; step += 1) {
      const next = this.step(points[step]!, step * h, h, keeps, 0);
      if (!next) return null;
      points.push(next);
    }
    return points;
  }

  private step(
    x: Float64Array,
    fromS: number,
    h: number,
    keeps: boolean,
    halvings: number,
  ): Float64Array | null {
    const kept = this.stages.length;
    const whole = this.wholeStep(x, fromS, h, keeps);
    if (whole || halvings >= MOST_HALVINGS) return whole;
    this.stages.length = kept;
    const middle = this.step(x, fromS, h / 2, keeps, halvings + 1);
    return middle && this.step(middle, fromS + h / 2, h / 2, keeps, halvings + 1);
  }

  private wholeStep(x: Float64Array, fromS: number, h: number, keeps: boolean): Float64Array | null {
    const { system, evaluation, size } = this;
    const q0 = this.charges(x);
    const rates: Float64Array[] = [];
    const scale = 1 / (h * GAMMA);
    const b = new Float64Array(size);
    let at: Float64Array = Float64Array.from(x);
    for (const [index, { timeS, of }] of STAGES.entries()) {
      const known = Float64Array.from(q0);
      of.forEach((a, j) => {
        const rate = rates[j]!;
        for (let row = 1; row < size; row += 1) known[row] = known[row]! + h * a * rate[row]!;
      });
      system.excite(b, 1, fromS + timeS * h);
      const solved = this.solveStage(at, known, b, scale);
      if (!solved) return null;
      at = solved.x;
      const q = this.charges(at);
      rates.push(q.map((value, row) => (value - known[row]!) * scale));
      if (keeps)
        this.stages.push({
          h,
          index,
          plan: solved.plan,
          factors: Float64Array.from(this.factors),
          c: Float64Array.from(evaluation.c),
        });
    }
    return at;
  }

  /** Newton's method on f(x) + scale (q(x) - known) = b. */
  private solveStage(
    from: Float64Array,
    known: Float64Array,
    b: Float64Array,
    scale: number,
  ): { x: Float64Array; plan: EliminationPlan } | null {
    const { system, evaluation, size } = this;
    const x = Float64Array.from(from);
    const { delta, right: residual, q } = this.work;
    for (let i = 0; i < NEWTON_LIMIT; i += 1) {
      system.evaluate(x, evaluation);
      residual.fill(0);
      system.multiplyAdd(system.linear.g, x, residual);
      this.multiply(system.linear.c, x, q);
      for (let row = 1; row < size; row += 1)
        residual[row] =
          b[row]! -
          residual[row]! -
          evaluation.f[row]! -
          scale * (q[row]! + evaluation.q[row]! - known[row]!);
      const plan = this.factor(scale);
      if (!plan) return null;
      solveReal(plan, this.factors, residual, delta);
      let isSettled = !evaluation.limited;
      for (let k = 1; k < size; k += 1) {
        const change = delta[k]!;
        x[k] = x[k]! + change;
        if (!(Math.abs(change) <= NEWTON_RELATIVE * Math.abs(x[k]!) + NEWTON_ABSOLUTE)) {
          isSettled = false;
          this.failedAt = k;
        }
      }
      if (!Number.isFinite(x[this.failedAt]!)) return null;
      if (isSettled || (system.isLinear && i > 0)) return { x, plan };
    }
    return null;
  }

  /** Factors G + scale C of the last evaluation into `factors`, by the plan at hand while it serves. */
  private factor(scale: number): EliminationPlan | null {
    const { evaluation, system, matrix } = this;
    const { columnOf } = system;
    this.scale.fill(0);
    for (let slot = 1; slot < matrix.length; slot += 1) {
      const value = evaluation.g[slot]! + scale * evaluation.c[slot]!;
      matrix[slot] = value;
      const column = columnOf[slot]!;
      const magnitude = Math.abs(value);
      if (magnitude > this.scale[column]!) this.scale[column] = magnitude;
    }
    for (let attempt = 0; attempt < 2; attempt += 1) {
      if (this.plan) {
        const { factors } = this;
        factors.set(matrix);
        factors.fill(0, matrix.length);
        if (factorReal(this.plan, factors, this.scale) < 0) return this.plan;
      }
      const planned = planElimination(system.pattern, system.size, matrix);
      if (!planned.ok) {
        this.failedAt = planned.column;
        return null;
      }
      this.plan = planned.plan;
      this.factors = new Float64Array(planned.plan.length);
    }
    return null;
  }

  /** Charges at a point, the devices' own included. */
  private charges(x: Float64Array): Float64Array {
    const { system, evaluation } = this;
    system.evaluate(x, evaluation);
    const q = Float64Array.from(evaluation.q);
    system.multiplyAdd(system.linear.c, x, q);
    return q;
  }

  private chargeSlopes(x: Float64Array): Float64Array {
    this.system.evaluate(x, this.evaluation);
    return Float64Array.from(this.evaluation.c);
  }

  /** out = v - M v, where M carries a small change of the beginning to the end; both in the unknowns' weights. */
  private oneMinusMap(v: Float64Array, out: Float64Array, weight: Float64Array, firstC: Float64Array): void {
    const { size, work } = this;
    const { x, q, known, right } = work;
    for (let k = 0; k < size; k += 1) x[k] = v[k]! * weight[k]!;
    this.multiply(firstC, x, q);
    for (let s = 0; s < this.stages.length; s += 1) {
      const { h, index, plan, factors, c } = this.stages[s]!;
      const scale = 1 / (h * GAMMA);
      const { of } = STAGES[index]!;
      const rate = work.rates[index]!;
      for (let row = 0; row < size; row += 1) {
        let sum = q[row]!;
        for (let j = 0; j < of.length; j += 1) sum += h * of[j]! * work.rates[j]![row]!;
        known[row] = sum;
        right[row] = sum * scale;
      }
      solveReal(plan, factors, right, x);
      this.multiply(c, x, rate);
      if (index === STAGES.length - 1) for (let row = 0; row < size; row += 1) q[row] = rate[row]!;
      for (let row = 0; row < size; row += 1) rate[row] = (rate[row]! - known[row]!) * scale;
    }
    out[0] = 0;
    for (let k = 1; k < size; k += 1) out[k] = v[k]! - x[k]! / weight[k]!;
  }

  /** out = C x over the slots that hold charge. */
  private multiply(c: Float64Array, x: Float64Array, out: Float64Array): void {
    const { rowOf, columnOf } = this.system;
    const { chargeSlots } = this;
    out.fill(0);
    for (let i = 0; i < chargeSlots.length; i += 1) {
      const slot = chargeSlots[i]!;
      const row = rowOf[slot]!;
      out[row] = out[row]! + c[slot]! * x[columnOf[slot]!]!;
    }
  }
}

/** A correction is shortened at most to this part. */
const LEAST_SHARE = 1 / 64;
/** Weight of an unknown that hardly swings, as a part of its size, and the least of all, V or A. */
const LEAST_WEIGHT = 1e-6;
const LEAST_SWING = 1e-9;

/** What counts as much of each unknown: its swing over the period and a millionth of its size. */
function weights(points: readonly Float64Array[]): Float64Array {
  const first = points[0]!;
  const low = Float64Array.from(first);
  const high = Float64Array.from(first);
  for (const x of points) {
    for (let k = 1; k < x.length; k += 1) {
      if (x[k]! < low[k]!) low[k] = x[k]!;
      if (x[k]! > high[k]!) high[k] = x[k]!;
    }
  }
  return low.map((l, k) =>
    Math.max(high[k]! - l, LEAST_WEIGHT * Math.max(Math.abs(l), Math.abs(high[k]!)), LEAST_SWING),
  );
}

/** How far the end of a period lies from its beginning, in the unknowns' weights. */
const missOf = (points: readonly Float64Array[], weight: Float64Array): Float64Array =>
  points[STEPS]!.map((v, k) => (k === 0 ? 0 : (v - points[0]![k]!) / weight[k]!));

const norm = (a: Float64Array): number => Math.sqrt(a.reduce((sum, v) => sum + v * v, 0));
const largest = (a: Float64Array): number => a.reduce((most, v) => Math.max(most, Math.abs(v)), 0);
