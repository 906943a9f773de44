import type { Device } from '../../circuit/devices/index.ts';
import { problem, type Problem } from '../../base/errors/index.ts';
import { BackwardDifferences } from './backward-differences.ts';
import type { ReducedStep } from './reduced-system.ts';
import type { AnalysisSession } from './session.ts';
import { StepSolver, type Allowance } from './step-solver.ts';
import type { System } from './system.ts';
import { dividing, edgesOf, fastestSource, SAME_TIME, STEPS_A_PERIOD } from './time-steps.ts';

export interface TransientOptions {
  readonly stopS: number;
  /** Spacing of the answer and largest step, s; without it steps are as the error allows. */
  readonly stepS?: number;
  /** `op` (default): from the operating point. `zero`: everything empty, the supplies switched on at t = 0. */
  readonly start?: 'op' | 'zero';
  /** Allowed local error as a part of each unknown's largest value so far; default 2e-5. */
  readonly relativeError?: number;
  /** Told every accepted point; answering false ends the run there. */
  readonly onPoint: (timeS: number, x: Float64Array) => boolean | void;
}

export type TransientOutcome =
  { readonly ok: true; readonly steps: number } | { readonly ok: false; readonly problem: Problem };

const USUAL_RELATIVE_ERROR = 2e-5;
const ABSOLUTE_ERROR = 1e-6;
/** Largest step without a step given, as a part of the run. */
const STEPS_A_RUN = 200;
/** Smallest step, as a part of the run; below it the solution does not exist. */
const LEAST_STEP = 1e-13;
/** First step and the step after a jump, as a part of the largest step. */
const AFTER_JUMP = 1e-3;
const LARGEST_GROWTH = 2;
const LEAST_GROWTH = 0.2;
/** A step this far below its allowance is lengthened whatever a closer look says. */
const PLAINLY_SMALL = 0.3;
const SAFETY = 0.9;
/** A step is not lengthened by less than this. */
const WORTH_A_CHANGE = 1.3;
/** A crossing is located to this part of the largest step. */
const CROSSING_RESOLUTION = 1e-6;

/**
 * Integrates f(x) + dq/dt = b(t) by backward differentiation formulas of order one to four, with the local error held by
 * comparing each step with its prediction; of order one after a jump (the start, an edge of a source, a latch that
 * changed).
 */
export function transient(session: AnalysisSession, options: TransientOptions): TransientOutcome {
  return new Integrator(session, options).run();
}

class Integrator {
  private readonly session: AnalysisSession;
  private readonly options: TransientOptions;
  private readonly system: System;
  private readonly solver: StepSolver;
  private readonly points: BackwardDifferences;
  private readonly allowance: Allowance;
  private readonly b: Float64Array;
  /** Prediction of the step under way, and what the charges before it add to its right-hand side. */
  private readonly predicted: Float64Array;
  private readonly remembered: Float64Array;
  private readonly error: Float64Array;
  private readonly settling: readonly Device[];
  private readonly crossed: readonly Device[];
  /** Unknowns 1 up to this are nets. */
  private readonly lastNet: number;
  private t = 0;

  constructor(session: AnalysisSession, options: TransientOptions) {
    this.session = session;
    this.options = options;
    this.system = session.system;
    const size = this.system.size + 1;
    const array = () => new Float64Array(size);
    this.allowance = {
      relative: options.relativeError ?? USUAL_RELATIVE_ERROR,
      absolute: ABSOLUTE_ERROR,
      peak: array(),
    };
    this.solver = new StepSolver(this.system, this.allowance);
    this.points = new BackwardDifferences(size);
    this.b = array();
    this.predicted = array();
    this.remembered = array();
    this.error = array();
    this.settling = this.system.devices.filter((d) => d.settle);
    this.crossed = this.system.devices.filter((d) => d.crossings);
    this.lastNet = this.system.nets().length - 1;
  }

  run(): TransientOutcome {
    const { stopS, stepS, start = 'op' } = this.options;
    const failed = this.begin(start);
    if (failed) return { ok: false, problem: failed };
    const edges = [
      ...new Set(
        this.session.circuit.parts.filter((p) => p.kind === 'signal').flatMap((p) => edgesOf(p, stopS)),
      ),
    ].sort((a, b) => a - b);
    const frequency = fastestSource(this.session.circuit.parts);
    const ceiling = Math.min(
      stepS ?? stopS / STEPS_A_RUN,
      frequency > 0 && stepS === undefined ? 1 / (STEPS_A_PERIOD * frequency) : Number.POSITIVE_INFINITY,
    );
    let h = ceiling * AFTER_JUMP;
    let edge = 0;
    let outputIndex = 1;
    let steps = 0;
    if (this.options.onPoint(0, this.points.x) === false) return { ok: true, steps };
    while (this.t < stopS * (1 - 1e-12)) {
      const nextEdge = edges[edge] ?? stopS;
      const nextOutput = stepS === undefined ? stopS : Math.min(stopS, outputIndex * stepS);
      const limit = Math.min(nextEdge, nextOutput);
      const left = limit - this.t;
      let step = Math.min(h, ceiling);
      if (stepS !== undefined && limit === nextOutput) step = dividing(stepS, left, step);
      const isToLimit = step >= left * (1 - SAME_TIME);
      // Steps of one length are the same to the last bit: their equations are made once.
      if (isToLimit && step > left * (1 + SAME_TIME)) step = left;
      const { degree } = this.points;
      const error = this.advance(step, ceiling);
      if (error === null) {
        h = step / 8;
        this.points.restart();
        if (h < stopS * LEAST_STEP) return { ok: false, problem: this.stuck() };
        continue;
      }
      const growth = error > 0 ? SAFETY * error ** (-1 / (degree + 1)) : LARGEST_GROWTH;
      if (error > 1 && step > stopS * LEAST_STEP * 100) {
        h = step * Math.max(LEAST_GROWTH, growth);
        continue;
      }
      const cut = this.crossing();
      if (cut !== null && step > ceiling * CROSSING_RESOLUTION) {
        h = Math.max(step * cut, ceiling * CROSSING_RESOLUTION);
        continue;
      }
      this.accept(step, isToLimit ? limit : this.t + step);
      steps += 1;
      // A step cut short by an output time says nothing against the length before it.
      // A length that is about right is kept: the constant part of the equations need not be made again.
      if (!isToLimit && growth > 1 && growth < WORTH_A_CHANGE) h = step;
      else h = Math.max(isToLimit ? h : 0, step * Math.min(LARGEST_GROWTH, Math.max(LEAST_GROWTH, growth)));
      let hasJumped = false;
      for (const device of this.settling) if (device.settle!(this.points.x)) hasJumped = true;
      if (isToLimit && limit === nextEdge && nextEdge < stopS) {
        edge += 1;
        hasJumped = true;
      }
      if (hasJumped) {
        h = ceiling * AFTER_JUMP;
        this.points.jump();
      }
      const isOutput = stepS === undefined || (isToLimit && limit === nextOutput);
      if (isOutput) outputIndex += 1;
      if (isOutput && this.options.onPoint(this.t, this.points.x) === false) break;
    }
    return { ok: true, steps };
  }

  /** The solution at t = 0 and its charges. */
  private begin(start: 'op' | 'zero'): Problem | null {
    const { points, solver, system } = this;
    if (start === 'op') {
      const point = this.session.tryOperatingPoint();
      if (!point.ok) return point.problem;
      points.x.set(point.x);
    }
    for (const device of system.devices) device.beginTime?.(start === 'zero');
    system.reset();
    solver.charges(points.x, points.q);
    if (start === 'op') return null;
    // Empty capacitors hold their nets for a moment that is short against everything: that moment is t = 0.
    const instant = this.options.stopS * 1e-12;
    if (this.advance(instant, instant) === null) return this.stuck();
    this.accept(instant, 0);
    for (const device of this.settling) device.settle!(points.x);
    points.jump();
    return null;
  }

  /** One step to t + h into the trial. Answers the error against its allowance, or null when there is no solution. */
  private advance(h: number, ceiling: number): number | null {
    const { points, system, b, predicted, remembered } = this;
    const scale = points.scale(h);
    points.predict(h, predicted, remembered);
    system.excite(b, 1, this.t + h);
    const { trialX, trialQ } = points;
    for (let row = 1; row < b.length; row += 1) {
      b[row] = b[row]! + remembered[row]!;
      trialX[row] = predicted[row]!;
    }
    const step = this.solver.solve(scale, b, trialX);
    if (!step) return null;
    this.solver.chargesOfSolution(trialX, trialQ);
    if (points.known < 2) return 0;
    const share = points.errorShare(h);
    const error = share * this.distance(predicted);
    const isPlain = error <= (h < ceiling ? PLAINLY_SMALL : 1);
    return isPlain ? error : this.storedError(step, h, share / h);
  }

  /** The largest distance of the trial to a prediction, of all nets, against its allowance. */
  private readonly distance = (predicted: Float64Array): number => {
    const { trialX } = this.points;
    const { relative, absolute, peak } = this.allowance;
    let worst = 0;
    for (let k = 1; k <= this.lastNet; k += 1) {
      const value = Math.abs(trialX[k]!);
      const allowed = relative * (value > peak[k]! ? value : peak[k]!) + absolute;
      const ratio = Math.abs(trialX[k]! - predicted[k]!) / allowed;
      if (ratio > worst) worst = ratio;
    }
    return worst;
  };

  /**
   * The error that what is stored brings about, against its allowance. The formula errs in the charges alone: what follows
   * from a source at once is right at every step, however far it lies from its prediction. Each charge's error is carried
   * to the unknowns by the equations of the step (after Shampine and Baca 1984).
   */
  private storedError(step: ReducedStep, h: number, perCharge: number): number {
    const { b, error, remembered: predictedQ } = this;
    const { trialX, trialQ } = this.points;
    const { relative, absolute, peak } = this.allowance;
    this.points.predictCharges(h, predictedQ);
    for (let row = 1; row < b.length; row += 1) b[row] = perCharge * (trialQ[row]! - predictedQ[row]!);
    this.solver.carry(step, b, error);
    let worst = 0;
    for (let k = 1; k <= this.lastNet; k += 1) {
      const value = Math.abs(trialX[k]!);
      const ratio = Math.abs(error[k]!) / (relative * (value > peak[k]! ? value : peak[k]!) + absolute);
      if (ratio > worst) worst = ratio;
    }
    return worst;
  }

  /** Where within the step a latch's condition changed its sign, as a part of the step; null when none did. */
  private crossing(): number | null {
    let first: number | null = null;
    for (const device of this.crossed) {
      const before = device.crossings!(this.points.x);
      const after = device.crossings!(this.points.trialX);
      before.forEach((v, i) => {
        if (v === 0 || v * after[i]! >= 0) return;
        const part = v / (v - after[i]!);
        if (first === null || part < first) first = part;
      });
    }
    return first;
  }

  private accept(h: number, time: number): void {
    const { points } = this;
    const { peak } = this.allowance;
    points.reconsider(h, this.distance);
    points.push(h);
    const { x } = points;
    for (let k = 1; k < x.length; k += 1) {
      const magnitude = Math.abs(x[k]!);
      if (magnitude > peak[k]!) peak[k] = magnitude;
    }
    this.t = time;
  }

  private stuck(): Problem {
    const unknown = this.system.unknowns[this.solver.worst]!;
    const net = unknown.net ?? this.system.circuit.parts.find((p) => p.ref === unknown.ref)?.pins;
    const name = typeof net === 'string' ? net : (Object.values(net ?? {})[0] ?? this.system.circuit.ground);
    return problem('analysis/no-time-step', {
      net: name,
      parts: this.system.partsAt(name),
      detail: `${this.t.toPrecision(3)} s`,
    });
  }
}
