import type { OwnModel, PartKind } from '@zemble/contract';
import type { LayerPartOf } from '../circuit/index.ts';

/**
 * What a device is to the analyses. Every device contributes to one system of equations
 *
 *     f(x) + d/dt q(x) = b(t)
 *
 * where x holds net voltages, internal nodes and branch currents; a net's row is the sum of the currents that leave
 * it into parts. G = df/dx and C = dq/dx, so that AC is G + jwC, the operating point f(x) = b, the transient the
 * integration of the whole, and the natural frequencies are those of the pencil (G, C). A device is one file and
 * one line in the registry.
 */
export interface Device {
  readonly ref: string;
  /** Adds its constant entries to G and C. Linear devices have nothing else. */
  stamp?(m: Matrices): void;
  /**
   * Adds what depends on x: f and q (as functions at x), and their derivatives to G and C. May limit its own
   * steps; then it adds the linearisation at the limited point and reports `m.limited`. Writes to f and q only in rows in
   * which it has a slot, or to f in `steadyRows`.
   */
  load?(x: Float64Array, m: Evaluation): void;
  /**
   * Rows between which `load` only moves current and charge: what it adds to f and q in them is zero in sum, whatever x.
   * Ground, as 0, may be one of them.
   */
  readonly balanced?: readonly number[];
  /** Rows without a slot in which `load` adds to f what does not follow x, but may be switched on and off. */
  readonly steadyRows?: readonly number[];
  /** Adds what it forces into the right-hand side. */
  excite?(b: Float64Array, when: Excitation): void;
  /** Row that a unit AC drive is written to, for sources. */
  readonly driveRow?: number;
  /**
   * Takes on the discrete state (a latch) that a finished time step calls for; true when it changed. Only devices
   * with such a state have it.
   */
  settle?(x: Float64Array, timeS: number): boolean;
  /** When it switches by itself, s, as a relay that is on its way: a time step ends there. Infinite while nothing is due. */
  dueS?(): number;
  /** Quantities whose change of sign changes the state: the time step is cut there. */
  crossings?(x: Float64Array): readonly number[];
  /**
   * Curvature between two solutions: what is left of a Newton step's error, as a part of the step, to first order. A
   * device with `load` that does not say it gets Newton steps until they vanish.
   */
  curvature?(before: Float64Array, after: Float64Array): number;
  /** Keeps a discrete state as it is while an operating point is looked for, or lets it follow the solution again. */
  hold?(isHeld: boolean): void;
  /** Called before a transient: from the operating point, or from everything empty. */
  beginTime?(isFromZero: boolean): void;
  /** Forgets the limiting history before a fresh start. */
  reset?(): void;
  /** Takes another main value without touching the structure. Absent where the value is not a number that counts. */
  retune?(value: number): void;
  /** Current, power and region at a solution. */
  report(x: Float64Array): DeviceReport;
  /** Noise currents between two unknowns at the operating point. */
  noise?(x: Float64Array): readonly NoiseSource[];
}

export interface Matrices {
  readonly g: Float64Array;
  readonly c: Float64Array;
}

export interface Evaluation extends Matrices {
  readonly f: Float64Array;
  readonly q: Float64Array;
  /** True where time stands still (operating point, AC): limits on the rate of change do not act. */
  readonly isStatic: boolean;
  /** Set by a device that did not accept the proposed step in full. */
  limited: boolean;
}

export interface Excitation {
  /** Fraction of the DC sources that is switched on, 0..1 (source stepping). */
  readonly scale: number;
  /** Seconds since the start, or null for a DC analysis. */
  readonly timeS: number | null;
}

export interface DeviceReport {
  /** Ampere, in at the first pin of the kind's table. */
  readonly current: number;
  /** Watt turned into heat (or delivered, for a supply or signal). */
  readonly power: number;
  /** Where an active device works. */
  readonly region?: string;
}

/** White and 1/f noise current, in A^2/Hz: white + flicker / f. */
export interface NoiseSource {
  readonly from: number;
  readonly to: number;
  readonly white: number;
  readonly flicker: number;
}

/** What a device gets to build itself with. */
export interface Terminals {
  /** Index of the net at a pin; 0 is ground. Throws `circuit/pin-open` when the pin has no net. */
  node(pin: string): number;
  /** As `node`, but undefined when the pin has no net. */
  optionalNode(pin: string): number | undefined;
  /** A new unknown of the device's own: an internal node or a branch current. */
  unknown(name: string): number;
  slot(row: number, column: number): number;
  /** Models that the circuit brings along. */
  readonly models: readonly OwnModel[];
  /** As `slot`, for an entry that only `stamp` writes: what is there does not change with the solution. */
  constantSlot(row: number, column: number): number;
}

export interface DeviceType<K extends PartKind> {
  /** `value` is the main value on the layer computed; null when there is none. */
  create(part: LayerPartOf<K>, value: number | null, terminals: Terminals): Device;
}

/** The four slots of an admittance between two unknowns. */
export interface PairSlots {
  readonly aa: number;
  readonly bb: number;
  readonly ab: number;
  readonly ba: number;
}

export function pairSlots(t: Terminals, a: number, b: number): PairSlots {
  return { aa: t.slot(a, a), bb: t.slot(b, b), ab: t.slot(a, b), ba: t.slot(b, a) };
}

/** As `pairSlots`, for an admittance that only `stamp` writes. */
export function constantPair(t: Terminals, a: number, b: number): PairSlots {
  return {
    aa: t.constantSlot(a, a),
    bb: t.constantSlot(b, b),
    ab: t.constantSlot(a, b),
    ba: t.constantSlot(b, a),
  };
}

export function addPair(values: Float64Array, s: PairSlots, admittance: number): void {
  values[s.aa] = values[s.aa]! + admittance;
  values[s.bb] = values[s.bb]! + admittance;
  values[s.ab] = values[s.ab]! - admittance;
  values[s.ba] = values[s.ba]! - admittance;
}

export function add(values: Float64Array, slot: number, amount: number): void {
  values[slot] = values[slot]! + amount;
}
