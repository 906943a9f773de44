import { divide, magnitude, type Phasor } from './small-signal.ts';
import { type AnalysisSession } from './session.ts';
import { transfer, transferInput } from './transfer.ts';

/** A part of which the slope is asked, at its main value. */
export interface TurnedPart {
  readonly ref: string;
  readonly value: number;
}

/** Relative step by which a part's own equations are differenced; no solution is involved, so it may be small. */
const STAMP_STEP = 1e-5;
/** Relative step of the central difference of a whole reading. */
const READING_STEP = 1e-3;
/** Largest move of an unknown when the bend of the devices' curves is differenced, V. */
const BEND_STEP_V = 1e-5;
/** dB of a small relative change. */
const DB_PER_NEPER = 20 / Math.LN10;

/** A number read off a session, or null where there is none. */
export type Reading = (session: AnalysisSession) => number | null;

/** d reading / d (relative deviation) of every part, by central differences; 0 where there is no reading. */
export function differenceSlopes(
  session: AnalysisSession,
  parts: readonly TurnedPart[],
  read: Reading,
): number[] {
  return parts.map(({ ref, value }) => {
    const at = (factor: number) => read(session.with({ values: new Map([[ref, value * factor]]) }));
    const [above, below] = [at(1 + READING_STEP), at(1 - READING_STEP)];
    return above === null || below === null ? 0 : (above - below) / (2 * READING_STEP);
  });
}

/**
 * Slopes by the adjoint (transposed) system: one solution of it gives the slope of a reading against every part, as
 * Director and Rohrer (1969) have it. About a non-linear operating point the parts also move that point; what its
 * movement does to the devices' small-signal values is added by a difference along it.
 */
export class AdjointSlopes {
  private readonly session: AnalysisSession;
  private readonly parts: readonly TurnedPart[];
  private readonly point: Float64Array;
  private known: readonly Float64Array[] | undefined;
  private changes: readonly MatrixChange[] | undefined;

  /** Throws a ZembleError where there is no operating point. */
  constructor(session: AnalysisSession, parts: readonly TurnedPart[]) {
    this.session = session;
    this.parts = parts;
    this.point = Float64Array.from(session.operatingPoint());
  }

  /** d V(net) / d (relative deviation) at the operating point, V, a part each. Throws `circuit/unknown-net`. */
  voltage(net: string): number[] {
    const { system, smallSignal } = this.session;
    smallSignal.at(0).adjoint(system.node(net));
    const weight = Float64Array.from(smallSignal.xRe);
    return this.imbalances().map((imbalance) => -dot(weight, imbalance));
  }

  /**
   * d gain / d (relative deviation), dB, a part each: the gain from one net to another at a frequency as
   * `transfer` defines it.
   */
  gainDb(from: string, to: string, frequencyHz: number, toMinus?: string): number[] {
    const { system } = this.session;
    const ratio = transfer(this.session, from, to, frequencyHz, toMinus);
    if (ratio.re === 0 && ratio.im === 0) return this.parts.map(() => 0);
    const begin = transferInput(this.session, from);
    const out: Across = [system.node(to), toMinus === undefined ? 0 : system.node(toMinus)];
    // From a source's electromotive force the input does not move.
    const input: Across | undefined = 'node' in begin ? [begin.node, 0] : undefined;
    return this.relativeMoves(frequencyHz, out, input).map((move) => DB_PER_NEPER * move);
  }

  /** d |Z| / d (relative deviation), ohm, a part each: what a source sees at its terminals at a frequency. */
  inputImpedance(source: string, frequencyHz: number): number[] {
    const { system, circuit } = this.session;
    const pins = circuit.parts.find((p) => p.ref === source)!.pins;
    const over: Across = [system.node(pins.plus!), system.node(pins.minus!)];
    const under: Across = [system.device(source).driveRow!, 0];
    const solved = this.session.smallSignal.at(frequencyHz).drive(source);
    const ohm = magnitude(solved.voltage(...over)) / magnitude(solved.voltage(...under));
    return this.relativeMoves(frequencyHz, over, under).map((move) => ohm * move);
  }

  /** d |Z| / d (relative deviation), ohm, a part each: what a net presents to a load at a frequency. */
  outputImpedance(net: string, frequencyHz: number): number[] {
    const node = this.session.system.node(net);
    const solved = this.session.smallSignal.at(frequencyHz).inject(0, node);
    const ohm = magnitude(solved.voltage(node));
    return this.relativeMoves(frequencyHz, [node, 0]).map((move) => ohm * move);
  }

  /**
   * d ln |over / under| / d (relative deviation), a part each, of the response that the small-signal circuit was solved for
   * last: one more solution for each of the two.
   */
  private relativeMoves(frequencyHz: number, over: Across, under?: Across): number[] {
    const solved = this.session.smallSignal;
    const response = { re: Float64Array.from(solved.xRe), im: Float64Array.from(solved.xIm) };
    const valueOf = ([plus, minus]: Across): Phasor => ({
      re: response.re[plus]! - response.re[minus]!,
      im: response.im[plus]! - response.im[minus]!,
    });
    const adjointOf = ([plus, minus]: Across): Complex => {
      solved.adjoint(plus, minus);
      return { re: Float64Array.from(solved.xRe), im: Float64Array.from(solved.xIm) };
    };
    const ends = [{ at: over, sign: -1 }, ...(under ? [{ at: under, sign: 1 }] : [])].map(({ at, sign }) => ({
      sign,
      value: valueOf(at),
      weight: adjointOf(at),
    }));
    const omega = 2 * Math.PI * frequencyHz;
    return this.matrixChanges().map((change) =>
      ends.reduce(
        (sum, { sign, value, weight }) =>
          sum + sign * divide(this.bilinear(weight, change, response, omega), value).re,
        0,
      ),
    );
  }

  /** The imbalance of every part, computed once. */
  private imbalances(): readonly Float64Array[] {
    this.known ??= this.parts.map((part) => this.imbalance(part));
    return this.known;
  }

  /** d F / d (relative deviation) of one part at the operating point held still, where F = f(x) + G x - b. */
  private imbalance({ ref, value }: TurnedPart): Float64Array {
    const { system } = this.session;
    const device = system.device(ref);
    const own = (at: number): Float64Array => {
      device.retune?.(at);
      const rows = new Float64Array(system.size + 1);
      rows.set(ownEvaluation(this.session, ref, this.point).f);
      system.multiplyAdd(stampOf(this.session, ref).g, this.point, rows);
      const forced = new Float64Array(system.size + 1);
      device.excite?.(forced, { scale: 1, timeS: null });
      for (let row = 0; row < rows.length; row += 1) rows[row] = rows[row]! - forced[row]!;
      return rows;
    };
    const change = difference(own(value * (1 + STAMP_STEP)), own(value * (1 - STAMP_STEP)));
    device.retune?.(value);
    change[0] = 0;
    return change;
  }

  /** d x / d (relative deviation) of the operating point, a part each; null where the part does not move it. */
  private pointMoves(): (Float64Array | null)[] {
    const { system } = this.session;
    return this.imbalances().map((imbalance) =>
      system.isLinear || imbalance.every((v) => v === 0) ? null : this.session.moveOf(imbalance),
    );
  }

  /** d x / d (relative deviation) of the operating point by unknown, a part each. */
  moves(): Float64Array[] {
    return this.imbalances().map((imbalance) => this.session.moveOf(imbalance));
  }

  /** The resistance between a net and the ground for direct current, about the operating point, ohm. */
  directOhm(net: string): number {
    const node = this.session.system.node(net);
    const injected = new Float64Array(this.session.system.size + 1);
    injected[node] = -1;
    return this.session.moveOf(injected)[node]!;
  }

  /**
   * How far the operating point moves, to first order, when devices are others of their type: by unknown, a device each.
   *
   * @param changed on the same circuit with other parameters of those devices
   */
  movesOfTypes(changed: AnalysisSession, refs: readonly string[]): Float64Array[] {
    const other = changed.system;
    return refs.map((ref) => {
      const own = ownEvaluation(this.session, ref, this.point).f;
      const imbalance = other.evaluationOf(ref, this.point).f.map((v, row) => v - own[row]!);
      imbalance[0] = 0;
      return this.session.moveOf(imbalance);
    });
  }

  /** What every part changes in the linearised circuit, computed once. */
  private matrixChanges(): readonly MatrixChange[] {
    if (this.changes) return this.changes;
    const moves = this.pointMoves();
    // A part touches a few entries of many: only those are kept.
    this.changes = this.parts.map((part, i) => sparse(this.matrixChange(part, moves[i]!)));
    return this.changes;
  }

  /** d G and d C / d (relative deviation) by slot. */
  private matrixChange(part: TurnedPart, move: Float64Array | null): { g: Float64Array; c: Float64Array } {
    const { session, point } = this;
    const device = session.system.device(part.ref);
    const own = (at: number) => {
      device.retune?.(at);
      const stamped = stampOf(session, part.ref);
      const loaded = ownEvaluation(session, part.ref, point);
      return { g: sum(stamped.g, loaded.g), c: sum(stamped.c, loaded.c) };
    };
    const [above, below] = [own(part.value * (1 + STAMP_STEP)), own(part.value * (1 - STAMP_STEP))];
    device.retune?.(part.value);
    const change = { g: difference(above.g, below.g), c: difference(above.c, below.c) };
    if (!move) return change;
    const largest = move.reduce((most, v) => Math.max(most, Math.abs(v)), 0);
    const step = BEND_STEP_V / Math.max(largest, Number.MIN_VALUE);
    const at = (sign: number) => {
      const into = session.system.evaluation();
      session.system.evaluate(
        point.map((v, k) => v + sign * step * move[k]!),
        into,
      );
      return into;
    };
    const [ahead, behind] = [at(1), at(-1)];
    for (let slot = 1; slot < change.g.length; slot += 1) {
      change.g[slot] = change.g[slot]! + (ahead.g[slot]! - behind.g[slot]!) / (2 * step);
      change.c[slot] = change.c[slot]! + (ahead.c[slot]! - behind.c[slot]!) / (2 * step);
    }
    return change;
  }

  /** w^T (dG + j omega dC) x for complex w and x. */
  private bilinear(w: Complex, { slots, g: dg, c: dc }: MatrixChange, x: Complex, omega: number): Phasor {
    const { rowOf, columnOf } = this.session.system;
    let [re, im] = [0, 0];
    for (let k = 0; k < slots.length; k += 1) {
      const slot = slots[k]!;
      const [g, b] = [dg[k]!, omega * dc[k]!];
      const [row, column] = [rowOf[slot]!, columnOf[slot]!];
      const tr = g * x.re[column]! - b * x.im[column]!;
      const ti = g * x.im[column]! + b * x.re[column]!;
      re += w.re[row]! * tr - w.im[row]! * ti;
      im += w.re[row]! * ti + w.im[row]! * tr;
    }
    return { re, im };
  }
}

/** An unknown against another one: two nets, or a branch's current against the ground's, which is none. */
type Across = readonly [plus: number, minus: number];

/** What a part changes in the entries of the linearised circuit, those that it changes only. */
interface MatrixChange {
  readonly slots: Int32Array;
  readonly g: Float64Array;
  readonly c: Float64Array;
}

function sparse({ g, c }: { readonly g: Float64Array; readonly c: Float64Array }): MatrixChange {
  const slots: number[] = [];
  for (let slot = 1; slot < g.length; slot += 1) if (g[slot] !== 0 || c[slot] !== 0) slots.push(slot);
  return {
    slots: Int32Array.from(slots),
    g: Float64Array.from(slots, (slot) => g[slot]!),
    c: Float64Array.from(slots, (slot) => c[slot]!),
  };
}

interface Complex {
  readonly re: Float64Array;
  readonly im: Float64Array;
}

/** The constant entries of one device. */
function stampOf(session: AnalysisSession, ref: string): { g: Float64Array; c: Float64Array } {
  const { system } = session;
  const own = { g: new Float64Array(system.pattern.length), c: new Float64Array(system.pattern.length) };
  system.device(ref).stamp?.(own);
  return own;
}

/** What one device's curves give at a point, without its constant entries. */
const ownEvaluation = (session: AnalysisSession, ref: string, x: Float64Array) =>
  session.system.evaluationOf(ref, x);

const sum = (a: Float64Array, b: Float64Array) => a.map((v, i) => v + b[i]!);

const difference = (above: Float64Array, below: Float64Array) =>
  above.map((v, i) => (v - below[i]!) / (2 * STAMP_STEP));

function dot(a: Float64Array, b: Float64Array): number {
  let total = 0;
  for (let k = 1; k < a.length; k += 1) total += a[k]! * b[k]!;
  return total;
}
