import type { Layer } from '@halfsplit/contract';
import type { Circuit, Part } from '../circuit/index.ts';
import { HalfsplitError, type Problem } from '../errors.ts';
import { RealSolver } from './real-solver.ts';
import { operatingPoint, type OperatingPoint } from './operating-point.ts';
import { divide, magnitude, SmallSignal, type Phasor } from './small-signal.ts';
import { System } from './system.ts';

/** Thrown where an analysis needs an operating point and there is none; carries the reason. */
export class NoOperatingPoint extends Error {
  readonly problem: Problem;
  constructor(found: Problem) {
    super(found.message);
    this.problem = found;
  }
}

/**
 * One circuit on one layer with what has been computed of it so far: the operating point and the linearised circuit
 * are found once and shared by all readouts.
 */
export class BenchModel {
  readonly system: System;
  private point: OperatingPoint | null = null;
  private lastGood: Float64Array | undefined;
  private linearised: SmallSignal | null = null;
  private isLinearisedStale = true;
  private readonly solver: RealSolver;

  constructor(circuit: Circuit, layer: Layer) {
    this.system = new System(circuit, layer);
    this.solver = new RealSolver(this.system);
  }

  get circuit(): Circuit {
    return this.system.circuit;
  }

  /** The operating point, or the reason why there is none. */
  tryOperatingPoint(): OperatingPoint {
    this.point ??= operatingPoint(this.system, this.lastGood, this.solver);
    if (this.point.ok) this.lastGood = this.point.x;
    return this.point;
  }

  /** The operating point. Throws `NoOperatingPoint`. */
  operatingPoint(): Float64Array {
    const point = this.tryOperatingPoint();
    if (!point.ok) throw new NoOperatingPoint(point.problem);
    return point.x;
  }

  get smallSignal(): SmallSignal {
    if (!this.linearised) this.linearised = new SmallSignal(this.system, this.operatingPoint());
    else if (this.isLinearisedStale) this.linearised.linearise(this.operatingPoint());
    this.isLinearisedStale = false;
    return this.linearised;
  }

  /** Gives a part another main value; what was computed is computed again when asked for. */
  retune(ref: string, value: number): boolean {
    this.point = null;
    this.isLinearisedStale = true;
    return this.system.retune(ref, value);
  }

  /** As `retune`, for many parts at once. */
  retuneAll(parts: readonly { readonly ref: string; readonly value: number }[]): void {
    this.point = null;
    this.isLinearisedStale = true;
    this.system.retuneAll(parts);
  }

  /**
   * Voltage ratio from one net to another at a frequency, driven by the signal source nearest to `from`, or by a
   * current into `from` when there is none. `toMinus` makes the output differential.
   */
  transfer(from: string, to: string, frequencyHz: number, toMinus?: string): Phasor {
    const { system } = this;
    const [fromNode, toNode] = [system.node(from, 'The gain'), system.node(to, 'The gain')];
    const minusNode = toMinus === undefined ? 0 : system.node(toMinus, 'The gain');
    const source = nearestSignal(system.circuit, from);
    const solved = this.smallSignal.at(frequencyHz);
    if (source) solved.drive(source);
    else solved.inject(0, fromNode);
    const input = solved.voltage(fromNode);
    if (magnitude(input) === 0) {
      throw new HalfsplitError('readout/not-defined', {
        where: `gain from ${from}`,
        detail: `no signal reaches net ${from}`,
      });
    }
    return divide(solved.voltage(toNode, minusNode), input);
  }
}

/** The signal source with the fewest parts between it and a net; undefined when the circuit has no signal source. */
export function nearestSignal(circuit: Circuit, net: string): string | undefined {
  const signals = circuit.parts.filter((p) => p.kind === 'signal');
  if (signals.length < 2) return signals[0]?.ref;
  const netsOf = (part: Part) => Object.values(part.pins).filter((n) => n !== circuit.ground);
  const reached = new Set([net]);
  for (let isGrowing = true; isGrowing;) {
    const hit = signals.find((s) => netsOf(s).some((n) => reached.has(n)));
    if (hit) return hit.ref;
    const before = reached.size;
    const grown = circuit.parts.filter((p) => p.kind !== 'supply' && netsOf(p).some((n) => reached.has(n)));
    for (const part of grown) for (const n of netsOf(part)) reached.add(n);
    isGrowing = reached.size > before;
  }
  return signals[0]?.ref;
}
