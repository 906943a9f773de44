import type { Device } from '../../circuit/devices/index.ts';
import { problem, type Problem } from '../../base/errors/index.ts';
import type { ReducedStep } from './reduced-system.ts';
import { FOURTH_ORDER, FROM_A_JUMP, type Tableau } from './runge-kutta.ts';
import type { AnalysisSession } from './session.ts';
import { StepSolver, type Allowance } from './step-solver.ts';
import type { System } from './system.ts';
import { dividing, edgesOf, fastestSource, SAME_TIME, STEPS_A_PERIOD } from './time-steps.ts';

export interface TransientOptions {
  readonly stopS: number;
  /** Spacing of the answer and largest step, s; without it steps are as the error allows. */
  readonly stepS?: number;
  /** `op` (default): from the operating point, beside an oscillator from that with every latch held still. `zero`: everything empty, the supplies switched on at t = 0. */
  readonly start?: 'op' | 'zero';
  /**
   * Every charge begins at most so far beside its balance, V, the same at every run, to either side or all to that of the sign: what
   * would leave it leaves it.
   */
  readonly beside?: { readonly volt: number; readonly isOneSided?: boolean };
  /** Allowed local error as a part of how far each unknown swings; default 2e-5. */
  readonly relativeError?: number;
  /** Told every accepted point; answering false ends the run there. */
  readonly onPoint: (timeS: number, x: Float64Array) => boolean | void;
}

export type TransientOutcome =
  { readonly ok: true; readonly steps: number } | { readonly ok: false; readonly problem: Problem };

const USUAL_RELATIVE_ERROR = 2e-5;
/** Allowed beside, V and A. */
const ABSOLUTE_ERROR = 1e-7;
/** Largest step without a step given, as a part of the run. */
const STEPS_A_RUN = 200;
/** A step shorter than this part of the time is none: the clock does not move. */
const LEAST_STEP = 16 * Number.EPSILON;
const LEAST_STEP_S = 1e-21;
/** The moment in which empty capacitors take what reaches them without a resistance to speak of, as a part of the run. */
const FIRST_MOMENT = 1e-9;
/** First step and the step after a jump, as a part of the largest step. */
const AFTER_JUMP = 1e-3;
const LARGEST_GROWTH = 3;
const LEAST_GROWTH = 0.1;
/** Where the equations of a step have no solution it is shortened so. */
const WITHOUT_SOLUTION = 1 / 8;
const SAFETY = 0.9;
/** A step is not lengthened by less than this. */
const WORTH_A_CHANGE = 1.3;
/** A moment at which a device switches is found to this part of the step before. */
const CROSSING_RESOLUTION = 1e-7;
/** A net that goes this part of its swing, this far, and most of its way at once has leapt; when is found to a part of the step before. */
const LEAP = 0.2;
const LEAP_V = 0.05;
const MOST_OF_THE_WAY = 0.7;
/** The stages of a step in the order of their times. */
const IN_TIME = [0, 2, 1, 3, 4, 5] as const;
const LEAP_RESOLUTION = 1e-5;
const INTO_A_LEAP = 1 / 4;
/** How fast the middle that an unknown swings about follows it, and how fast its swing is forgotten, a step. */
const MIDDLE_FOLLOWS = 0.1;
const SWING_HOLDS = 0.99;
/** A point that lies this part of the step back says where it goes; one that is nearer, nothing. */
const LEAST_MEMORY = 0.25;

/**
 * Integrates f(x) + dq/dt = b(t) by a Runge-Kutta method of order four that is L-stable (`FOURTH_ORDER`), the local error of every
 * net and every state of a device held under its allowance, without exception; after a jump (the start, an edge of a source, a
 * device that has switched) by a step that needs no slope (`FROM_A_JUMP`). A step ends where a device switches.
 */
export function transient(session: AnalysisSession, options: TransientOptions): TransientOutcome {
  return new Integrator(session, options).run();
}

class Integrator {
  private readonly session: AnalysisSession;
  private readonly options: TransientOptions;
  private readonly system: System;
  private readonly solver: StepSolver;
  private readonly allowance: Allowance;
  /** Largest step, s. */
  private readonly ceiling: number;
  private readonly b: Float64Array;
  /** The newest point and its charges; those of the step under way. */
  private x: Float64Array;
  private q: Float64Array;
  private trialX: Float64Array;
  private trialQ: Float64Array;
  /** The point before, and how long ago it was; none right after a jump. */
  private before: Float64Array;
  private beforeS = 0;
  /** dq/dt and x at the stages of the step under way; the first holds the slope at the newest point, where it is known. */
  private readonly slopes: Float64Array[];
  private readonly stages: Float64Array[];
  private isSlopeKnown = false;
  private readonly error: Float64Array;
  private readonly middle: Float64Array;
  /** Unknowns that are held to the allowance: nets, and what has a charge. */
  private readonly judged: Int32Array;
  /** Unknowns 1 up to this are nets. */
  private readonly lastNet: number;
  private readonly settling: readonly Device[];
  private readonly crossed: readonly Device[];
  private readonly waiting: readonly Device[];
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
    const { stopS, stepS } = options;
    const frequency = fastestSource(session.circuit.parts);
    this.ceiling = Math.min(
      stepS ?? stopS / STEPS_A_RUN,
      frequency > 0 && stepS === undefined ? 1 / (STEPS_A_PERIOD * frequency) : Number.POSITIVE_INFINITY,
    );
    [this.b, this.x, this.q, this.trialX, this.trialQ] = [array(), array(), array(), array(), array()];
    [this.before, this.error, this.middle] = [array(), array(), array()];
    this.slopes = FOURTH_ORDER.c.map(array);
    this.stages = FOURTH_ORDER.c.map(array);
    this.settling = this.system.devices.filter((d) => d.settle);
    this.crossed = this.system.devices.filter((d) => d.crossings);
    this.waiting = this.system.devices.filter((d) => d.dueS);
    this.lastNet = this.system.nets().length - 1;
    this.judged = this.statesAndNets();
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
    const { ceiling } = this;
    let h = ceiling * AFTER_JUMP;
    /** The last step that nothing cut short. */
    let free = h;
    let edge = 0;
    let outputIndex = 1;
    let steps = 0;
    if (this.options.onPoint(0, this.x) === false) return { ok: true, steps };
    while (this.t < stopS * (1 - 1e-12)) {
      const nextEdge = edges[edge] ?? stopS;
      const nextOutput = stepS === undefined ? stopS : Math.min(stopS, outputIndex * stepS);
      const due = this.dueS();
      const limit = Math.min(nextEdge, nextOutput, due);
      const left = limit - this.t;
      let step = Math.min(h, ceiling);
      if (stepS !== undefined && limit === nextOutput) step = dividing(stepS, left, step);
      const isToLimit = step >= left * (1 - SAME_TIME);
      // Steps of one length are the same to the last bit: their equations are made once.
      if (isToLimit && step > left * (1 + SAME_TIME)) step = left;
      const method = this.isSlopeKnown ? FOURTH_ORDER : FROM_A_JUMP;
      const error = this.advance(method, step);
      const isLeast = step <= this.t * LEAST_STEP + LEAST_STEP_S;
      if (error === null) {
        h = step * WITHOUT_SOLUTION;
        if (isLeast) return { ok: false, problem: this.stuck(this.solver.worst) };
        this.solver.leadBackTo(this.x);
        continue;
      }
      const growth = error.size > 0 ? SAFETY * error.size ** (-1 / (method.lowerOrder + 1)) : LARGEST_GROWTH;
      if (error.size > 1) {
        if (isLeast) return { ok: false, problem: this.stuck(error.at) };
        h = step * Math.max(LEAST_GROWTH, Math.min(SAFETY, growth));
        continue;
      }
      const cut = this.crossing();
      const resolution = free * CROSSING_RESOLUTION;
      if (cut !== null && step > resolution) {
        // A little beyond, so that it has happened.
        h = Math.min(0.999 * step, step * cut + resolution / 2);
        continue;
      }
      // An edge of a source is a leap by itself, and its time is known.
      const isAtEdge = isToLimit && limit === nextEdge && nextEdge < stopS;
      const isJump = this.isSlopeKnown && !isAtEdge && this.leaps();
      if (isJump && step > free * LEAP_RESOLUTION) {
        h = step * INTO_A_LEAP;
        continue;
      }
      this.accept(step, isToLimit ? limit : this.t + step);
      steps += 1;
      // A step cut short by an output time says nothing against the length before it.
      // A length that is about right is kept: the constant part of the equations need not be made again.
      if (cut !== null) h = free;
      else if (!isToLimit && growth > 1 && growth < WORTH_A_CHANGE) h = step;
      else h = Math.max(isToLimit ? h : 0, step * Math.min(LARGEST_GROWTH, Math.max(LEAST_GROWTH, growth)));
      if (!isToLimit && cut === null && !isJump) free = step;
      let hasJumped = isJump;
      for (const device of this.settling) if (device.settle!(this.x, this.t)) hasJumped = true;
      if (isAtEdge) {
        edge += 1;
        hasJumped = true;
      }
      if (hasJumped) {
        h = ceiling * AFTER_JUMP;
        this.jump();
      }
      const isOutput = stepS === undefined || (isToLimit && limit === nextOutput);
      if (isOutput) outputIndex += 1;
      if (isOutput && this.options.onPoint(this.t, this.x) === false) break;
    }
    return { ok: true, steps };
  }

  /** The solution at t = 0 and its charges. */
  private begin(start: 'op' | 'zero'): Problem | null {
    const { solver, system } = this;
    if (start === 'op') {
      const point = this.session.tryPointAtRest();
      if (!point.ok) return point.problem;
      this.x.set(point.x);
    }
    for (const device of system.devices) device.beginTime?.(start === 'zero');
    system.reset();
    const { beside: push } = this.options;
    if (push) {
      const part = (k: number) => (push.isOneSided === true ? Math.abs(besideBalance(k)) : besideBalance(k));
      const beside = this.x.map((v, k) => (k === 0 ? 0 : v + push.volt * part(k)));
      solver.charges(beside, this.q);
      system.reset();
    } else solver.charges(this.x, this.q);
    this.middle.set(this.x);
    if (start === 'op') return null;
    // Empty capacitors hold their nets for a moment that is short against everything: that moment is t = 0.
    const instant = this.options.stopS * FIRST_MOMENT;
    if (this.advance(FROM_A_JUMP, instant) === null) return this.stuck(solver.worst);
    this.accept(instant, 0);
    for (const device of this.settling) device.settle!(this.x, 0);
    this.jump();
    return null;
  }

  /** What the past tells of the slopes holds no longer; the charges do. */
  private jump(): void {
    this.isSlopeKnown = false;
    this.beforeS = 0;
  }

  /** When the next device switches by itself, s. */
  private dueS(): number {
    let due = Number.POSITIVE_INFINITY;
    for (const device of this.waiting) due = Math.min(due, device.dueS!());
    return due;
  }

  /**
   * One step to t + h into the trial. Answers its local error against the allowance, and at which unknown it is largest, or null
   * when there is no solution.
   */
  private advance(method: Tableau, h: number): { readonly size: number; readonly at: number } | null {
    const { system, solver, b, q, slopes, stages } = this;
    const { gamma, c, a, isExplicitFirst } = method;
    const scale = 1 / (gamma * h);
    let step: ReducedStep | null = null;
    if (isExplicitFirst) stages[0]!.set(this.x);
    for (let i = isExplicitFirst ? 1 : 0; i < c.length; i += 1) {
      const row = a[i]!;
      const [x, slope] = [stages[i]!, slopes[i]!];
      // The slopes of the stages before, as they enter the equations of this one.
      slope.fill(0);
      for (let j = 0; j < row.length; j += 1) {
        const weight = row[j]! / gamma;
        if (weight === 0) continue;
        const known = slopes[j]!;
        for (let k = 1; k < slope.length; k += 1) slope[k] = slope[k]! + weight * known[k]!;
      }
      system.excite(b, 1, this.t + c[i]! * h);
      for (let k = 1; k < b.length; k += 1) b[k] = b[k]! + scale * q[k]! + slope[k]!;
      this.guess(method, i, h, x);
      step = solver.solve(scale, b, x);
      if (!step) return null;
      solver.chargesOfSolution(x, this.trialQ);
      const { trialQ } = this;
      for (let k = 1; k < slope.length; k += 1) slope[k] = scale * (trialQ[k]! - q[k]!) - slope[k]!;
    }
    this.trialX.set(stages[c.length - 1]!);
    return this.localError(method, step!);
  }

  /** Where the equations of a stage are first tried: on the parabola through three points before it. */
  private guess({ c, isExplicitFirst }: Tableau, i: number, h: number, into: Float64Array): void {
    const { x, before, beforeS, stages } = this;
    const at = c[i]!;
    const points: { t: number; x: Float64Array }[] = [{ t: 0, x }];
    if (isExplicitFirst)
      for (let j = i - 1; j > 0 && points.length < 3; j -= 1) points.push({ t: c[j]!, x: stages[j]! });
    if (points.length < 3 && beforeS > LEAST_MEMORY * h) points.push({ t: -beforeS / h, x: before });
    if (points.length === 1) {
      into.set(x);
      return;
    }
    const weights = points.map((p) =>
      points.reduce((product, o) => (o === p ? product : (product * (at - o.t)) / (p.t - o.t)), 1),
    );
    const [p0, p1, p2] = points as [(typeof points)[0], (typeof points)[0], (typeof points)[0] | undefined];
    const [w0, w1, w2] = weights as [number, number, number | undefined];
    if (p2 === undefined) for (let k = 0; k < into.length; k += 1) into[k] = w0 * p0.x[k]! + w1 * p1.x[k]!;
    else for (let k = 0; k < into.length; k += 1) into[k] = w0 * p0.x[k]! + w1 * p1.x[k]! + w2! * p2.x[k]!;
  }

  /**
   * The error that a step has made in what is stored, carried to the unknowns by the equations of the step (after Shampine and Baca
   * 1984): what follows from a source at once is right at every step.
   */
  private localError(
    { gamma, error: weights }: Tableau,
    step: ReducedStep,
  ): { readonly size: number; readonly at: number } {
    const { b, error, slopes, judged, trialX, middle } = this;
    const { relative, absolute, peak } = this.allowance;
    b.fill(0);
    for (let i = 0; i < weights.length; i += 1) {
      const weight = weights[i]! / gamma;
      if (weight === 0) continue;
      const slope = slopes[i]!;
      for (let k = 1; k < b.length; k += 1) b[k] = b[k]! + weight * slope[k]!;
    }
    this.solver.carry(step, b, error);
    let [size, at] = [0, judged[0] ?? 1];
    for (let i = 0; i < judged.length; i += 1) {
      const k = judged[i]!;
      const swing = Math.max(peak[k]!, Math.abs(trialX[k]! - middle[k]!));
      const ratio = Math.abs(error[k]!) / (relative * swing + absolute);
      if (ratio > size) [size, at] = [ratio, k];
    }
    return { size: Number.isFinite(size) ? size : Number.MAX_VALUE, at };
  }

  /** Where within the step a device's condition changed its sign, as a part of the step; null when none did. */
  private crossing(): number | null {
    let first: number | null = null;
    for (const device of this.crossed) {
      const before = device.crossings!(this.x);
      const after = device.crossings!(this.trialX);
      before.forEach((v, i) => {
        if (v === 0 || v * after[i]! >= 0) return;
        const part = v / (v - after[i]!);
        if (first === null || part < first) first = part;
      });
    }
    return first;
  }

  /**
   * Whether most of the way of a net lies between two neighbouring stages: what flips, as two transistors do that turn one another
   * off, has two solutions for a while, and a long step may find the other too early. In short ones the old one holds as long as
   * there is one. What has a charge to move is smooth over a step, or its error is seen.
   */
  private leaps(): boolean {
    const { stages, lastNet } = this;
    const { peak } = this.allowance;
    for (let k = 1; k <= lastNet; k += 1) {
      let [low, high, widest] = [Infinity, -Infinity, 0];
      for (let i = 0; i < IN_TIME.length; i += 1) {
        const value = stages[IN_TIME[i]!]![k]!;
        if (value < low) low = value;
        if (value > high) high = value;
        const apart = i === 0 ? 0 : Math.abs(value - stages[IN_TIME[i - 1]!]![k]!);
        if (apart > widest) widest = apart;
      }
      if (widest > LEAP_V && widest > LEAP * peak[k]! && widest > MOST_OF_THE_WAY * (high - low)) return true;
    }
    return false;
  }

  private accept(h: number, time: number): void {
    const { peak } = this.allowance;
    const { middle } = this;
    [this.before, this.x, this.trialX] = [this.x, this.trialX, this.before];
    [this.q, this.trialQ] = [this.trialQ, this.q];
    this.beforeS = h;
    // The last stage is the end of the step: its slope is the first one's of the next.
    const last = this.isSlopeKnown ? FOURTH_ORDER.c.length - 1 : FROM_A_JUMP.c.length - 1;
    [this.slopes[0], this.slopes[last]] = [this.slopes[last]!, this.slopes[0]!];
    this.isSlopeKnown = true;
    const { x } = this;
    for (let k = 1; k < x.length; k += 1) {
      const away = Math.abs(x[k]! - middle[k]!);
      peak[k] = Math.max(away, SWING_HOLDS * peak[k]!);
      middle[k] = middle[k]! + MIDDLE_FOLLOWS * (x[k]! - middle[k]!);
    }
    this.t = time;
  }

  /** Nets, and the unknowns in whose columns something is stored. */
  private statesAndNets(): Int32Array {
    const { system } = this;
    const found = new Set<number>();
    for (let k = 1; k <= this.lastNet; k += 1) found.add(k);
    const { c } = system.linear;
    for (let slot = 1; slot < c.length; slot += 1) if (c[slot] !== 0) found.add(system.columnOf[slot]!);
    // What a device stores follows the solution: the unknowns that it looks at are states too.
    for (const slot of system.loadedSlots) found.add(system.columnOf[slot]!);
    found.delete(0);
    return Int32Array.from(found);
  }

  private stuck(at: number): Problem {
    const unknown = this.system.unknowns[at]!;
    const net = unknown.net ?? this.system.circuit.parts.find((p) => p.ref === unknown.ref)?.pins;
    const name = typeof net === 'string' ? net : (Object.values(net ?? {})[0] ?? this.system.circuit.ground);
    return problem('analysis/no-time-step', {
      net: name,
      parts: this.system.partsAt(name),
      detail: `${this.t.toPrecision(3)} s`,
    });
  }
}

/** How far an unknown begins beside its balance, -1 to 1, none of them 0: the golden section's multiples spread evenly. */
const besideBalance = (k: number): number => {
  const part = (k * 0.6180339887498949) % 1;
  return part < 0.5 ? -1 + part : part;
};
