import type { PartKind } from '@zemble/contract';
import { KINDS } from '../../circuit/circuit/index.ts';
import type { Evaluation } from '../../circuit/devices/index.ts';
import { ZembleError } from '../../base/errors/index.ts';
import {
  factorComplex,
  planElimination,
  solveComplex,
  solveComplexTransposed,
  type EliminationPlan,
} from '../../base/numeric/index.ts';
import type { System } from './system.ts';

/** Pins at which the current of a kind counts, where that is not its first. */
const CURRENT_PINS: Partial<Record<PartKind, readonly string[]>> = { opamp: ['out'], potentiometer: ['2'] };

export interface Phasor {
  readonly re: number;
  readonly im: number;
}

/**
 * The circuit linearised about an operating point: (G + j w C) x = b. Set a frequency, then solve for as many drives
 * as needed with the same factors.
 */
export class SmallSignal {
  readonly system: System;
  private readonly evaluation: Evaluation;
  private plan: EliminationPlan | null = null;
  private re = new Float64Array(0);
  private im = new Float64Array(0);
  private frequencyHz = Number.NaN;
  private point = new Float64Array(0);
  private readonly scale: Float64Array;
  private readonly bRe: Float64Array;
  private readonly bIm: Float64Array;
  readonly xRe: Float64Array;
  readonly xIm: Float64Array;

  /** @param x the operating point */
  constructor(system: System, x: Float64Array) {
    this.system = system;
    this.evaluation = system.evaluation();
    this.linearise(x);
    const rows = system.size + 1;
    this.scale = new Float64Array(rows);
    this.bRe = new Float64Array(rows);
    this.bIm = new Float64Array(rows);
    this.xRe = new Float64Array(rows);
    this.xIm = new Float64Array(rows);
  }

  get g(): Float64Array {
    return this.evaluation.g;
  }

  get c(): Float64Array {
    return this.evaluation.c;
  }

  /** Takes another operating point, keeping the elimination plan. */
  linearise(x: Float64Array): void {
    this.point = Float64Array.from(x);
    this.system.reset();
    this.frequencyHz = Number.NaN;
    this.system.settleAt(x, this.evaluation);
  }

  /** Factors at a frequency in Hz (0 and above). Throws `circuit/singular`. */
  at(frequencyHz: number): this {
    if (frequencyHz === this.frequencyHz) return this;
    const omega = 2 * Math.PI * frequencyHz;
    const { columns } = this.system.pattern;
    const { scale } = this;
    const { g, c } = this.evaluation;
    scale.fill(0);
    for (let slot = 1; slot < columns.length; slot += 1) {
      const column = columns[slot]!;
      const magnitude = Math.abs(g[slot]!) + omega * Math.abs(c[slot]!);
      if (magnitude > scale[column]!) scale[column] = magnitude;
    }
    if (this.plan && this.replay(omega) < 0) {
      this.frequencyHz = frequencyHz;
      return this;
    }
    // A positive real s = w keeps passive circuits far from singular while the pivots are chosen.
    const sample = new Float64Array(columns.length);
    for (let slot = 1; slot < columns.length; slot += 1) sample[slot] = g[slot]! + omega * c[slot]!;
    const planned = planElimination(this.system.pattern, this.system.size, sample);
    if (!planned.ok) throw this.singular(planned.column);
    this.plan = planned.plan;
    this.re = new Float64Array(planned.plan.length);
    this.im = new Float64Array(planned.plan.length);
    const failed = this.replay(omega);
    if (failed >= 0) throw this.singular(this.plan.columns[failed]!);
    this.frequencyHz = frequencyHz;
    return this;
  }

  private replay(omega: number): number {
    const { re, im } = this;
    const { g, c } = this.evaluation;
    // What lies beyond the pattern is filled in by the elimination.
    re.fill(0, g.length);
    im.fill(0, c.length);
    re.set(g);
    for (let slot = 1; slot < c.length; slot += 1) im[slot] = omega * c[slot]!;
    re[0] = im[0] = 0;
    return factorComplex(this.plan!, re, im, this.scale);
  }

  private singular(unknown: number): ZembleError {
    this.frequencyHz = Number.NaN;
    const { net, parts } = singularData(this.system, unknown);
    return new ZembleError('circuit/singular', { net, parts });
  }

  /** Solves with 1 V in the EMF of a source. */
  drive(ref: string): this {
    const row = this.system.device(ref).driveRow;
    if (row === undefined) {
      throw new ZembleError('analysis/no-source', {
        where: ref,
        detail: 'it is neither a signal nor a supply',
      });
    }
    return this.solveFor(row, 1, 0);
  }

  /** Solves with 1 A into `to` and out of `from` (indices). */
  inject(from: number, to: number): this {
    return this.solveFor(to, 1, from);
  }

  private solveFor(row: number, value: number, minusRow: number): this {
    this.bRe.fill(0);
    this.bIm.fill(0);
    this.bRe[row] = value;
    if (minusRow !== 0) this.bRe[minusRow] = -value;
    this.bRe[0] = 0;
    solveComplex(this.plan!, this.re, this.im, this.bRe, this.bIm, this.xRe, this.xIm);
    return this;
  }

  /**
   * Solves the transposed system for one output: afterwards `xRe`, `xIm` hold what 1 A (or 1 V in a branch) at each
   * unknown contributes to the voltage at `out` minus `outMinus`.
   */
  adjoint(out: number, outMinus = 0): this {
    this.bRe.fill(0);
    this.bIm.fill(0);
    this.bRe[out] = 1;
    if (outMinus !== 0) this.bRe[outMinus] = -1;
    this.bRe[0] = 0;
    solveComplexTransposed(this.plan!, this.re, this.im, this.bRe, this.bIm, this.xRe, this.xIm);
    return this;
  }

  /**
   * Current into a part at the pin its `current` counts at, after `drive` or `inject`: what the part alone takes there,
   * conduction and charge. Throws `circuit/unknown-part`.
   */
  current(ref: string): Phasor {
    const { system } = this;
    const device = system.device(ref, 'The current');
    const part = system.circuit.parts.find((p) => p.ref === ref)!;
    const [first, second] = CURRENT_PINS[part.kind] ?? KINDS[part.kind].pins;
    const node = system.node(part.pins[first!] ?? system.circuit.ground);
    // The ground has no row: what flows in there flows out at the other end of a part with two.
    const isAtOther = node === 0 && KINDS[part.kind].pins.length === 2;
    const row = isAtOther ? system.node(part.pins[second!] ?? system.circuit.ground) : node;
    const sign = isAtOther !== (part.kind === 'opamp') ? -1 : 1;
    const own = system.evaluationOf(ref, this.point);
    device.stamp?.(own);
    const omega = 2 * Math.PI * this.frequencyHz;
    let [re, im] = [0, 0];
    for (let slot = 1; slot < own.g.length; slot += 1) {
      if (system.rowOf[slot] !== row) continue;
      const column = system.columnOf[slot]!;
      const [g, b] = [own.g[slot]!, omega * own.c[slot]!];
      re += g * this.xRe[column]! - b * this.xIm[column]!;
      im += g * this.xIm[column]! + b * this.xRe[column]!;
    }
    return { re: sign * re, im: sign * im };
  }

  voltage(node: number, minusNode = 0): Phasor {
    return { re: this.xRe[node]! - this.xRe[minusNode]!, im: this.xIm[node]! - this.xIm[minusNode]! };
  }
}

function singularData(system: System, unknown: number): { net: string; parts: string[] } {
  const found = system.singularAt(unknown);
  const net = found.net ?? system.circuit.ground;
  return { net, parts: system.partsAt(net) };
}

export const magnitude = (p: Phasor): number => Math.hypot(p.re, p.im);

export function divide(a: Phasor, b: Phasor): Phasor {
  const squared = b.re * b.re + b.im * b.im;
  return { re: (a.re * b.re + a.im * b.im) / squared, im: (a.im * b.re - a.re * b.im) / squared };
}

/** Frequencies from `fromHz` to `toHz`, evenly spaced on a log axis, both ends included. */
export function logSpaced(fromHz: number, toHz: number, perDecade: number): number[] {
  const steps = Math.max(1, Math.round(Math.log10(toHz / fromHz) * perDecade));
  const ratio = toHz / fromHz;
  return Array.from({ length: steps + 1 }, (_, i) => (i === steps ? toHz : fromHz * ratio ** (i / steps)));
}
