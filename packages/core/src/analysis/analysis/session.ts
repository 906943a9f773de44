import {
  floatingProblems,
  sourceLoops,
  withControl,
  type ControlState,
  type LayerCircuit,
  type LayerPart,
  type LayerPartOf,
  type Value,
} from '../../circuit/circuit/index.ts';
import { ZembleError, type Problem } from '../../base/errors/index.ts';
import { isSame } from '../../base/text/index.ts';
import { operatingPoint, PointSearch, type OperatingPoint } from './operating-point.ts';
import { RealSolver } from './real-solver.ts';
import { SmallSignal } from './small-signal.ts';
import { System } from './system.ts';

/** How a circuit is to differ from the one at hand. */
export interface Variant {
  /** Main values of parts, by designator. */
  readonly values?: ReadonlyMap<string, Value>;
  /** A signal source as a sine, its level in V peak. */
  readonly drive?: { readonly source: string; readonly levelV: number; readonly frequencyHz: number };
  /** Signal sources that are silent: each stands at its offset. `triggered` leaves pulses, which start something. */
  readonly silence?: 'all' | 'others' | 'all but pulses';
  /** Positions of controls, by designator. */
  readonly controls?: ReadonlyMap<string, ControlState>;
}

type Turned = ReadonlyMap<string, number>;
const NONE: Turned = new Map();

/** What sessions on circuits of one shape share: the assembled equations, turned to one of them at a time. */
interface Bench {
  readonly system: System;
  readonly search: PointSearch;
  /** The circuit as it was assembled, and its parts by designator. */
  readonly circuit: LayerCircuit;
  readonly parts: ReadonlyMap<string, LayerPart>;
  holder: AnalysisSession | null;
  smallSignal: SmallSignal | null;
  linearisedFor: AnalysisSession | null;
  /** The linearised circuit at direct current, and whose. */
  readonly direct: RealSolver;
  directFor: AnalysisSession | null;
  /** What floats or stands in a ring of sources; null until it was looked for. */
  floating: readonly Problem[] | null;
}

/**
 * A session of analysis on one resolved circuit, with what has been computed of it so far: the operating point and the
 * linearised circuit are found once and shared by all readouts. Another circuit is another session, made by `with`; a
 * session never changes. Sessions that differ only in values share their assembled equations, which are turned to
 * whichever is being computed.
 */
export class AnalysisSession {
  private readonly bench: Bench;
  /** Values of parts that differ from the circuit as it was assembled. */
  private readonly turned: Turned;
  /** Where the search for the operating point begins: at that of the session this one was made from. */
  private readonly near: Float64Array | undefined;
  private resolved: LayerCircuit | null;
  private point: OperatingPoint | null = null;
  private held: OperatingPoint | null = null;

  /** Throws what assembling the circuit throws: `circuit/pin-open`, `circuit/no-value`, `circuit/no-ground`, … */
  constructor(circuit: LayerCircuit);
  constructor(circuit: LayerCircuit, bench: Bench, turned: Turned, near: Float64Array | undefined);
  constructor(circuit: LayerCircuit, bench?: Bench, turned: Turned = NONE, near?: Float64Array) {
    this.turned = turned;
    this.near = near;
    this.resolved = bench ? null : circuit;
    if (bench) {
      this.bench = bench;
      return;
    }
    const system = new System(circuit);
    this.bench = {
      system,
      search: new PointSearch(system),
      circuit,
      parts: new Map(circuit.parts.map((p) => [p.ref, p])),
      holder: this,
      smallSignal: null,
      linearisedFor: null,
      direct: new RealSolver(system),
      directFor: null,
      floating: null,
    };
  }

  /** The circuit as this session sees it. */
  get circuit(): LayerCircuit {
    this.resolved ??= {
      ...this.bench.circuit,
      parts: this.bench.circuit.parts.map((p) => {
        const value = this.turned.get(p.ref);
        return value === undefined ? p : { ...p, value };
      }),
    };
    return this.resolved;
  }

  /** The assembled equations, turned to this session's values. */
  get system(): System {
    this.take();
    return this.bench.system;
  }

  private take(): void {
    const { bench } = this;
    if (bench.holder === this) return;
    const values: { ref: string; value: number }[] = [];
    for (const ref of bench.holder?.turned.keys() ?? [])
      if (!this.turned.has(ref)) values.push({ ref, value: Number(bench.parts.get(ref)!.value) });
    for (const [ref, value] of this.turned) values.push({ ref, value });
    bench.system.turn(values);
    bench.holder = this;
  }

  /**
   * A session on the same circuit with something changed. This is the only way to a variant. Values of parts that can be
   * turned in place share the assembled equations; everything else is assembled anew. Throws `circuit/unknown-part`,
   * `circuit/bad-value` for a control that cannot stand so, `analysis/no-source`, and what assembling throws.
   */
  with(variant: Variant): AnalysisSession {
    const { values, drive, silence, controls } = variant;
    if (!drive && !silence && !controls && values) return this.withValues(values);
    const refs = new Set(this.circuit.parts.map((p) => p.ref));
    for (const ref of [...(values?.keys() ?? []), ...(controls?.keys() ?? [])])
      if (!refs.has(ref)) throw new ZembleError('circuit/unknown-part', { ref, where: 'The variant' });
    if (drive && !this.circuit.parts.some((p) => p.ref === drive.source && p.kind === 'signal')) {
      throw new ZembleError('analysis/no-source', {
        where: drive.source,
        detail: 'it is not a signal source',
      });
    }
    const parts = this.circuit.parts.map((p) => variedPart(p, variant, this.circuit.parts));
    return new AnalysisSession({ ...this.circuit, parts });
  }

  /** Whether another circuit differs from this one in values only that are turned in place. */
  serves(circuit: LayerCircuit): boolean {
    return this.valuesTo(circuit) !== null;
  }

  /** A session on another circuit, which shares these equations where they serve it. Throws what assembling throws. */
  on(circuit: LayerCircuit): AnalysisSession {
    const values = this.valuesTo(circuit);
    return values ? this.withValues(values) : new AnalysisSession(circuit);
  }

  private valuesTo(circuit: LayerCircuit): ReadonlyMap<string, number> | null {
    const values = valuesBetween(this.circuit, circuit);
    return values && [...values.keys()].every((ref) => this.bench.system.canTurn(ref)) ? values : null;
  }

  private withValues(values: ReadonlyMap<string, Value>): AnalysisSession {
    const { bench } = this;
    const turned = new Map(this.turned);
    let canTurn = true;
    for (const [ref, value] of values) {
      const base = bench.parts.get(ref);
      if (!base) throw new ZembleError('circuit/unknown-part', { ref, where: 'The variant' });
      if (value === base.value) turned.delete(ref);
      else if (typeof value === 'number' && typeof base.value === 'number' && bench.system.canTurn(ref))
        turned.set(ref, value);
      else canTurn = false;
    }
    if (canTurn)
      return new AnalysisSession(bench.circuit, bench, turned, this.point?.ok ? this.point.x : this.near);
    const parts = this.circuit.parts.map((p) => {
      const value = values.get(p.ref);
      return value === undefined ? p : { ...p, value };
    });
    return new AnalysisSession({ ...this.circuit, parts });
  }

  /** The operating point, or the reason why there is none. */
  tryOperatingPoint(): OperatingPoint {
    this.point ??= this.findPoint();
    return this.point;
  }

  private findPoint(): OperatingPoint {
    const { bench, system } = this;
    // What floats is a matter of topology, which circuits of one shape share.
    bench.floating ??= [...floatingProblems(this.circuit), ...sourceLoops(this.circuit)];
    const [floating] = bench.floating;
    if (floating) return { ok: false, problem: floating };
    for (const device of system.devices) device.hold?.(false);
    return operatingPoint(bench.search, this.near);
  }

  /** The operating point. Throws a ZembleError with the reason where there is none. */
  operatingPoint(): Float64Array {
    const point = this.tryOperatingPoint();
    if (!point.ok) throw new ZembleError(point.problem);
    return point.x;
  }

  /**
   * The operating point, or where there is none the one with every latch held still, as beside an oscillator; the reason why there is
   * no operating point where there is none either way.
   */
  tryPointAtRest(): OperatingPoint {
    const point = this.tryOperatingPoint();
    if (point.ok) return point;
    const latches = this.system.devices.filter((d) => d.hold);
    if (latches.length === 0) return point;
    for (const latch of latches) latch.hold!(true);
    this.held ??= operatingPoint(this.bench.search);
    return this.held.ok ? this.held : point;
  }

  /** The point about which small signals are computed: that at rest. Throws a ZembleError with the reason where there is none. */
  smallSignalPoint(): Float64Array {
    const point = this.tryPointAtRest();
    if (!point.ok) throw new ZembleError(point.problem);
    return point.x;
  }

  /**
   * How far an imbalance of the equations moves the operating point, to first order, by unknown.
   *
   * @param imbalance by row
   * Throws a ZembleError where there is no operating point, or the linearised circuit has no single solution.
   */
  moveOf(imbalance: Float64Array): Float64Array {
    const { bench } = this;
    if (bench.directFor !== this) {
      bench.directFor = null;
      const { g } = this.smallSignal;
      const singular = bench.direct.factor(Float64Array.from(g));
      if (singular >= 0) throw new ZembleError(bench.system.singularAt(singular));
      bench.directFor = this;
    }
    const move = new Float64Array(imbalance.length);
    bench.direct.solve(
      imbalance.map((v) => -v),
      move,
    );
    return move;
  }

  get smallSignal(): SmallSignal {
    const { bench } = this;
    const { system } = this;
    if (bench.linearisedFor === this && bench.smallSignal) return bench.smallSignal;
    const point = this.smallSignalPoint();
    if (bench.smallSignal) bench.smallSignal.linearise(point);
    else bench.smallSignal = new SmallSignal(system, point);
    bench.linearisedFor = this;
    return bench.smallSignal;
  }
}

/** The values in which one circuit differs from another, by designator; null where they differ in anything else. */
function valuesBetween(one: LayerCircuit, other: LayerCircuit): Map<string, number> | null {
  const isAlike =
    one.ground === other.ground && one.models === other.models && one.parts.length === other.parts.length;
  if (!isAlike) return null;
  const values = new Map<string, number>();
  for (let i = 0; i < one.parts.length; i += 1) {
    const [a, b] = [one.parts[i]!, other.parts[i]!];
    if (a === b) continue;
    const isTurned = typeof a.value === 'number' && typeof b.value === 'number' && a.value !== b.value;
    if (!isSame(a, isTurned ? { ...b, value: a.value } : b)) return null;
    if (isTurned) values.set(b.ref, Number(b.value));
  }
  return values;
}

/** An alternating voltage of this size and frequency that feeds a rectifier or a transformer is a supply and no signal. */
const SUPPLYING = { leastV: 3, fromHz: 15, toHz: 500 } as const;

function isSupplying(
  { value, frequency, pins }: LayerPartOf<'signal'>,
  others: readonly LayerPart[],
): boolean {
  const { leastV, fromHz, toHz } = SUPPLYING;
  if (typeof value !== 'number' || Math.abs(value) < leastV) return false;
  if (frequency === undefined || frequency < fromHz || frequency > toHz) return false;
  const nets = Object.values(pins);
  return others.some(
    (p) =>
      (p.kind === 'diode' || p.kind === 'transformer') &&
      Object.values(p.pins).filter((net) => nets.includes(net)).length > 0,
  );
}

function variedPart(
  part: LayerPart,
  { values, drive, silence, controls }: Variant,
  others: readonly LayerPart[],
): LayerPart {
  const value = values?.get(part.ref);
  const valued = value === undefined ? part : { ...part, value };
  const state = controls?.get(part.ref);
  if (state !== undefined) {
    const set = withControl(valued, state);
    if (!set)
      throw new ZembleError('circuit/bad-value', {
        ref: part.ref,
        detail: `it cannot stand at ${JSON.stringify(state)}`,
      });
    return set;
  }
  if (valued.kind !== 'signal') return valued;
  if (drive?.source === valued.ref)
    return { ...valued, value: drive.levelV, frequency: drive.frequencyHz, waveform: 'sine' };
  const isKept = valued.waveform === 'pulse' || isSupplying(valued, others);
  if (silence === undefined || (silence === 'all but pulses' && isKept)) return valued;
  return { ...valued, value: 0 };
}
