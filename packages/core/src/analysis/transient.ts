import type { Device, Evaluation } from '../devices/index.ts';
import { problem, type Problem } from '../errors.ts';
import type { AnalysisSession } from './session.ts';
import { solveDense, solveDenseAgain } from '../numeric/index.ts';
import { dividing, edgesOf, fastestSource, SAME_TIME, STEPS_A_PERIOD } from './time-steps.ts';
import { expand, reduce, ReducedSystem, type ReducedStep } from './reduced-system.ts';
import type { System } from './system.ts';

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
const NEWTON_LIMIT = 30;
/**
 * A Newton step this small ends the search: what is left of the error is its square over kT/q, a thousandth of the local
 * error allowed.
 */
const NEWTON_RELATIVE = 1e-5;
const NEWTON_ABSOLUTE = 2e-5;
/** What a Newton step may leave behind, as a part of the local error allowed. */
const CURVED_REST = 0.05;
/** Steps larger than this, against the local error allowed, are followed by another whatever the curvature. */
const LARGEST_CURVED_STEP = 100;
/** Largest step without a step given, as a part of the run. */
const STEPS_A_RUN = 200;
/** Smallest step, as a part of the run; below it the solution does not exist. */
const LEAST_STEP = 1e-13;
/** First step and the step after a jump, as a part of the largest step. */
const AFTER_JUMP = 1e-3;
/** Steps after a jump that are taken with backward Euler: it does not ring. */
const EULER_STEPS = 2;
const LARGEST_GROWTH = 2;
/** An error below this part of its allowance needs no closer look. */
const PLAINLY_SMALL = 0.3;
/** What the plain distance to the extrapolation counts beside the error of what is stored: it bounds what rings. */
const STRAIGHT_SHARE = 0.1;
const SAFETY = 0.9;
/** A step is not lengthened by less than this. */
const WORTH_A_CHANGE = 1.3;

/**
 * Integrates f(x) + dq/dt = b(t): trapezoidal rule with the local error held by comparing each step with its
 * extrapolation, backward Euler after a jump (the start, an edge of a source, a latch that changed).
 */
export function transient(session: AnalysisSession, options: TransientOptions): TransientOutcome {
  return new Integrator(session, options).run();
}

class Integrator {
  private readonly session: AnalysisSession;
  private readonly options: TransientOptions;
  private readonly allowed: number;
  private readonly system: System;
  private readonly reduced: ReducedSystem;
  private readonly evaluation: Evaluation;
  private readonly size: number;
  private x: Float64Array;
  private trial: Float64Array;
  private q: Float64Array;
  private qTrial: Float64Array;
  private qDot: Float64Array;
  private qDotTrial: Float64Array;
  private readonly b: Float64Array;
  private readonly residual: Float64Array;
  private readonly delta: Float64Array;
  /** Newton's equations on the block that is left, and what it solves for. */
  private readonly jacobian: Float64Array;
  private readonly rest: Float64Array;
  private readonly exchanged: Int32Array;
  /** Charges at the last two points before `x`. */
  private readonly earlierQ: [Float64Array, Float64Array];
  private readonly chargeError: Float64Array;
  private readonly prediction: Float64Array;
  private readonly knowns: Float64Array;
  /** Slots of the constant part of C that hold something. */
  private readonly chargeSlots: Int32Array;
  private readonly settling: readonly Device[];
  private readonly crossed: readonly Device[];
  /** Unknowns 1 up to this are nets. */
  private readonly lastNet: number;
  private readonly peak: Float64Array;
  /** The last two points before `x`, and their times, for the extrapolation. */
  private readonly earlier: [Float64Array, Float64Array];
  private readonly earlierT: [number, number] = [0, 0];
  private known = 0;
  private blind = 0;
  private t = 0;
  private worst = 0;

  constructor(session: AnalysisSession, options: TransientOptions) {
    this.session = session;
    this.options = options;
    this.allowed = options.relativeError ?? USUAL_RELATIVE_ERROR;
    this.system = session.system;
    this.reduced = new ReducedSystem(this.system);
    this.evaluation = this.system.evaluation(false);
    this.size = this.system.size + 1;
    const array = () => new Float64Array(this.size);
    [this.x, this.trial, this.q, this.qTrial, this.qDot] = [array(), array(), array(), array(), array()];
    [this.qDotTrial, this.b, this.residual, this.delta, this.peak] = [
      array(),
      array(),
      array(),
      array(),
      array(),
    ];
    this.earlier = [array(), array()];
    [this.prediction, this.knowns] = [array(), array()];
    const { c } = this.system.linear;
    const slots = Array.from(c.keys()).slice(1);
    this.chargeSlots = Int32Array.from(slots.filter((s) => c[s] !== 0));
    this.settling = this.system.devices.filter((d) => d.settle);
    this.crossed = this.system.devices.filter((d) => d.crossings);
    this.lastNet = this.system.nets().length - 1;
    this.jacobian = new Float64Array(this.size * this.size);
    this.rest = array();
    this.exchanged = new Int32Array(this.size);
    this.earlierQ = [array(), array()];
    this.chargeError = array();
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
    let euler = EULER_STEPS;
    let edge = 0;
    let outputIndex = 1;
    let steps = 0;
    if (this.options.onPoint(0, this.x) === false) return { ok: true, steps };
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
      const isEuler = euler > 0;
      const error = this.advance(step, isEuler);
      if (error === null) {
        h = step / 8;
        euler = EULER_STEPS;
        if (h < stopS * LEAST_STEP) return { ok: false, problem: this.stuck() };
        continue;
      }
      if (error > 1 && step > stopS * LEAST_STEP * 100) {
        h = step * Math.max(0.2, SAFETY * error ** (-1 / 3));
        continue;
      }
      const cut = this.crossing();
      if (cut !== null && step > ceiling * CROSSING_RESOLUTION) {
        h = Math.max(step * cut, ceiling * CROSSING_RESOLUTION);
        continue;
      }
      this.accept(isToLimit ? limit : this.t + step);
      steps += 1;
      if (euler > 0) euler -= 1;
      const growth = error > 0 ? SAFETY * error ** (-1 / 3) : LARGEST_GROWTH;
      // A step cut short by an output time says nothing against the length before it.
      // A length that is about right is kept: the constant part of the equations need not be made again.
      if (!isToLimit && growth > 1 && growth < WORTH_A_CHANGE) h = step;
      else h = Math.max(isToLimit ? h : 0, step * Math.min(LARGEST_GROWTH, Math.max(0.3, growth)));
      let hasJumped = false;
      for (const device of this.settling) if (device.settle!(this.x)) hasJumped = true;
      if (isToLimit && limit === nextEdge && nextEdge < stopS) {
        edge += 1;
        hasJumped = true;
      }
      if (hasJumped) {
        h = ceiling * AFTER_JUMP;
        euler = EULER_STEPS;
        this.known = 0;
        this.blind = 1;
      }
      const isOutput = stepS === undefined || (isToLimit && limit === nextOutput);
      if (isOutput) outputIndex += 1;
      if (isOutput && this.options.onPoint(this.t, this.x) === false) break;
    }
    return { ok: true, steps };
  }

  /** The solution at t = 0 and its charges. */
  private begin(start: 'op' | 'zero'): Problem | null {
    if (start === 'op') {
      const point = this.session.tryOperatingPoint();
      if (!point.ok) return point.problem;
      this.x.set(point.x);
    }
    for (const device of this.system.devices) device.beginTime?.(start === 'zero');
    this.system.reset();
    this.system.evaluateLoaded(this.x, this.evaluation);
    this.charge(this.x, this.q);
    if (start === 'zero') {
      // Empty capacitors hold their nets for a moment that is short against everything: that moment is t = 0.
      const instant = this.options.stopS * 1e-12;
      if (this.advance(instant, true) === null) return this.stuck();
      this.accept(instant);
      for (const device of this.settling) device.settle!(this.x);
      this.t = 0;
      this.known = 0;
      this.blind = 1;
      this.qDot.fill(0);
    }
    return null;
  }

  /** Charges at x from the devices' charges as last evaluated. */
  private charge(x: Float64Array, into: Float64Array): void {
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

  /** One step to t + h into the trial arrays. Answers the error against its allowance, or null when Newton fails. */
  private advance(h: number, isEuler: boolean): number | null {
    const { system, evaluation, trial, knowns, q, qDot, size, b, prediction } = this;
    const scale = isEuler ? 1 / h : 2 / h;
    const memory = isEuler ? 0 : 1;
    this.predict(h, prediction);
    const reduced = this.reduced.at(scale);
    if (typeof reduced === 'number') {
      this.worst = reduced;
      return null;
    }
    system.excite(b, 1, this.t + h);
    for (let row = 1; row < size; row += 1) knowns[row] = b[row]! + scale * q[row]! + memory * qDot[row]!;
    reduce(reduced, knowns);
    const { columns } = reduced.reduction.partial;
    for (let j = 0; j < columns.length; j += 1) trial[columns[j]!] = prediction[columns[j]!]!;
    let isSettled = false;
    for (let i = 0; i < NEWTON_LIMIT && !isSettled; i += 1) {
      system.evaluateLoaded(trial, evaluation);
      const singular = this.newtonStep(reduced, scale);
      if (singular >= 0) {
        this.worst = columns[singular]!;
        return null;
      }
      isSettled = !evaluation.limited && (system.isLinear || this.isSettled(columns));
    }
    if (!isSettled) return null;
    expand(reduced, knowns, trial);
    for (let k = 1; k < size; k += 1) {
      if (Number.isFinite(trial[k]!)) continue;
      this.worst = k;
      return null;
    }
    this.finishCharges(scale, isEuler);
    const error = this.errorAgainst(prediction, h, isEuler);
    if (isEuler || this.known < 2 || error <= PLAINLY_SMALL) return error;
    return Math.max(error * STRAIGHT_SHARE, this.chargedError(reduced, h, scale));
  }

  /** One Newton step on the block that is left, into `delta` and `trial`. Answers -1, or the column that is singular. */
  private newtonStep({ reduction, block }: ReducedStep, scale: number): number {
    const { jacobian, rest, delta, trial, knowns } = this;
    const { f, q, g, c } = this.evaluation;
    const { rows, columns } = reduction.partial;
    const n = columns.length;
    for (let i = 0; i < n; i += 1) {
      const row = rows[i]!;
      let sum = knowns[row]! - f[row]! - scale * q[row]!;
      for (let j = 0; j < n; j += 1) {
        const value = block[i * n + j]!;
        jacobian[i * n + j] = value;
        sum -= value * trial[columns[j]!]!;
      }
      rest[i] = sum;
    }
    const { loadedSlots } = this.system;
    const { loadedAt } = reduction;
    for (let i = 0; i < loadedSlots.length; i += 1) {
      const slot = loadedSlots[i]!;
      const at = loadedAt[i]!;
      jacobian[at] = jacobian[at]! + g[slot]! + scale * c[slot]!;
    }
    const singular = solveDense(jacobian, rest, n, this.exchanged);
    if (singular >= 0) return singular;
    for (let j = 0; j < n; j += 1) {
      const k = columns[j]!;
      delta[k] = rest[j]!;
      trial[k] = trial[k]! + rest[j]!;
    }
    return -1;
  }

  /**
   * Whether the Newton step just taken was the last that is needed: it vanished, or what is left of its error by the
   * devices' curvature is little against the local error allowed.
   */
  private isSettled(columns: Int32Array): boolean {
    const { delta, trial } = this;
    let isStill = true;
    for (let j = 0; j < columns.length; j += 1) {
      const k = columns[j]!;
      if (Math.abs(delta[k]!) <= NEWTON_RELATIVE * Math.abs(trial[k]!) + NEWTON_ABSOLUTE) continue;
      if (!Number.isFinite(trial[k]!)) {
        this.worst = k;
        return false;
      }
      isStill = false;
      this.worst = k;
    }
    if (isStill) return true;
    let largest = 0;
    const { allowed, lastNet, peak } = this;
    for (let j = 0; j < columns.length; j += 1) {
      const k = columns[j]!;
      if (k > lastNet) continue;
      const ratio =
        Math.abs(delta[k]!) / (allowed * Math.max(peak[k]!, Math.abs(trial[k]!)) + ABSOLUTE_ERROR);
      if (ratio > largest) largest = ratio;
    }
    if (largest > LARGEST_CURVED_STEP) return false;
    // Where the step came from.
    const before = this.residual;
    for (let j = 0; j < columns.length; j += 1)
      before[columns[j]!] = trial[columns[j]!]! - delta[columns[j]!]!;
    before[0] = 0;
    for (const device of this.system.loading) {
      if (!device.curvature) return false;
      if (device.curvature(before, trial) * largest > CURVED_REST) return false;
    }
    return true;
  }

  /** Charges and their rates at the trial; the devices' own follow the last Newton step by their linearisation. */
  private finishCharges(scale: number, isEuler: boolean): void {
    const { qTrial, qDotTrial, q, qDot, delta, size } = this;
    const { rowOf, columnOf, loadedSlots } = this.system;
    const { c } = this.evaluation;
    this.charge(this.trial, qTrial);
    for (let i = 0; i < loadedSlots.length; i += 1) {
      const slot = loadedSlots[i]!;
      const row = rowOf[slot]!;
      qTrial[row] = qTrial[row]! + c[slot]! * delta[columnOf[slot]!]!;
    }
    for (let row = 1; row < size; row += 1)
      qDotTrial[row] = scale * (qTrial[row]! - q[row]!) - (isEuler ? 0 : qDot[row]!);
  }

  /** Extrapolates through the last points: quadratic when there are three. */
  private predict(h: number, into: Float64Array): void {
    if (this.known < 1) {
      into.set(this.x);
      return;
    }
    const t1 = this.t - this.earlierT[0];
    if (this.known < 2) {
      for (let k = 1; k < this.size; k += 1)
        into[k] = this.x[k]! + ((this.x[k]! - this.earlier[0][k]!) * h) / t1;
      return;
    }
    const { a, c, d } = this.extrapolation(h);
    const e1 = this.earlier[0];
    const e2 = this.earlier[1];
    const { x, size } = this;
    for (let k = 1; k < size; k += 1) into[k] = a * x[k]! + c * e1[k]! + d * e2[k]!;
  }

  private errorAgainst(predicted: Float64Array, h: number, isEuler: boolean): number {
    if (this.known < 2 && !isEuler) return 1;
    if (this.known < 1) return 0;
    const { allowed } = this;
    // Share of the difference to the extrapolation that is the trapezoidal rule's own error, steps about equal.
    const share = this.known < 2 ? 1 : this.extrapolation(h).share;
    let worst = 0;
    const { trial, peak, lastNet } = this;
    for (let k = 1; k <= lastNet; k += 1) {
      const error = share * Math.abs(trial[k]! - predicted[k]!);
      const ratio = error / (allowed * Math.max(peak[k]!, Math.abs(trial[k]!)) + ABSOLUTE_ERROR);
      if (ratio > worst) worst = ratio;
    }
    return worst;
  }

  /**
   * The error that what is stored brings about, against its allowance. The rule errs in the charges alone: what follows
   * from a source at once is right at every step, however far it lies from its extrapolation. Each charge's error, from its
   * extrapolation, is carried to the unknowns by the equations of the step (after Shampine and Baca 1984).
   */
  private chargedError(reduced: ReducedStep, h: number, scale: number): number {
    const { chargeError, qTrial, q, size, rest, jacobian, delta, peak, lastNet, allowed, trial } = this;
    const [e1, e2] = this.earlierQ;
    const { a, c, d, share } = this.extrapolation(h);
    for (let row = 1; row < size; row += 1)
      chargeError[row] = scale * share * (qTrial[row]! - (a * q[row]! + c * e1[row]! + d * e2[row]!));
    chargeError[0] = 0;
    reduce(reduced, chargeError);
    const { rows, columns } = reduced.reduction.partial;
    const n = columns.length;
    for (let i = 0; i < n; i += 1) rest[i] = chargeError[rows[i]!]!;
    solveDenseAgain(jacobian, rest, n, this.exchanged);
    for (let j = 0; j < n; j += 1) delta[columns[j]!] = rest[j]!;
    expand(reduced, chargeError, delta);
    let worst = 0;
    for (let k = 1; k <= lastNet; k += 1) {
      const ratio =
        Math.abs(delta[k]!) / (allowed * Math.max(peak[k]!, Math.abs(trial[k]!)) + ABSOLUTE_ERROR);
      if (ratio > worst) worst = ratio;
    }
    return worst;
  }

  /** Factors of the last three points in their extrapolation, and the share of a miss of it that is the rule's own error. */
  private extrapolation(h: number): { a: number; c: number; d: number; share: number } {
    const t1 = this.t - this.earlierT[0];
    const t2 = this.t - this.earlierT[1];
    const own = (h * h * h) / 12;
    return {
      a: ((h + t1) * (h + t2)) / (t1 * t2),
      c: (-h * (h + t2)) / (t1 * (t2 - t1)),
      d: (h * (h + t1)) / (t2 * (t2 - t1)),
      share: own / ((h * (h + t1) * (h + t2)) / 6 + own),
    };
  }

  /** Where within the step a latch's condition changed its sign, as a part of the step; null when none did. */
  private crossing(): number | null {
    let first: number | null = null;
    for (const device of this.crossed) {
      const before = device.crossings!(this.x);
      const after = device.crossings!(this.trial);
      before.forEach((v, i) => {
        if (v === 0 || v * after[i]! >= 0) return;
        const part = v / (v - after[i]!);
        if (first === null || part < first) first = part;
      });
    }
    return first;
  }

  private accept(time: number): void {
    const { earlier, earlierT, peak, size, trial } = this;
    earlierT[1] = earlierT[0];
    earlierT[0] = this.t;
    // The arrays change places: the oldest point's is filled next.
    const oldest = earlier[1];
    earlier[1] = earlier[0];
    earlier[0] = this.x;
    this.x = trial;
    this.trial = oldest;
    const oldestQ = this.earlierQ[1];
    this.earlierQ[1] = this.earlierQ[0];
    this.earlierQ[0] = this.q;
    this.q = this.qTrial;
    this.qTrial = oldestQ;
    [this.qDot, this.qDotTrial] = [this.qDotTrial, this.qDot];
    for (let k = 1; k < size; k += 1) {
      const magnitude = Math.abs(trial[k]!);
      if (magnitude > peak[k]!) peak[k] = magnitude;
    }
    // The point at which a jump was found still holds the values before it: nothing is extrapolated from there.
    this.known = this.blind > 0 ? 0 : Math.min(2, this.known + 1);
    if (this.blind > 0) this.blind -= 1;
    this.t = time;
  }

  private stuck(): Problem {
    const unknown = this.system.unknowns[this.worst]!;
    const net = unknown.net ?? this.system.circuit.parts.find((p) => p.ref === unknown.ref)?.pins;
    const name = typeof net === 'string' ? net : (Object.values(net ?? {})[0] ?? this.system.circuit.ground);
    return problem('analysis/no-time-step', {
      net: name,
      parts: this.system.partsAt(name),
      detail: `${this.t.toPrecision(3)} s`,
    });
  }
}

/** A crossing is located to this part of the largest step. */
const CROSSING_RESOLUTION = 1e-6;
