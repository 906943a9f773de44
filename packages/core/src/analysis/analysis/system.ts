import {
  hangingNets,
  isModelled,
  KINDS,
  netNamed,
  touching,
  type LayerCircuit,
  type LayerPart,
} from '../../circuit/circuit/index.ts';
import {
  createDevice,
  deadPart,
  OPEN_S,
  type Device,
  type Evaluation,
  type Terminals,
} from '../../circuit/devices/index.ts';
import { ZembleError, problem, type Problem } from '../../base/errors/index.ts';
import { SparsePattern } from '../../base/numeric/index.ts';

/** Looks at one point after which every damped junction stands there. */
const LARGEST_LOOKS = 100;

/** What an unknown of the system is: the voltage of a net, or something inside a part. */
export interface SystemUnknown {
  readonly net?: string;
  readonly ref?: string;
  readonly name: string;
}

/**
 * A resolved circuit assembled into equations: unknowns, matrix pattern and devices. Linear entries are stamped
 * once; `evaluate` adds what depends on the solution.
 */
export class System {
  readonly circuit: LayerCircuit;
  readonly pattern = new SparsePattern();
  readonly devices: readonly Device[];
  /** SystemUnknown 0 is the ground. */
  readonly unknowns: readonly SystemUnknown[];
  /** Constant part of G and C by slot. */
  readonly linear: { g: Float64Array; c: Float64Array };
  /** Row and column of each slot. */
  readonly rowOf: Int32Array;
  readonly columnOf: Int32Array;
  private readonly netIndex = new Map<string, number>();
  private readonly byRef = new Map<string, Device>();
  /** Devices whose equations depend on the solution. */
  readonly loading: readonly Device[];
  /** Slots that those devices write to. */
  readonly loadedSlots: Int32Array;
  private readonly slotsOf = new Map<Device, readonly number[]>();
  /** Diagonals of nets where a leg hangs in the air. */
  private readonly insulated: readonly number[];
  private readonly exciting: readonly Device[];
  private readonly excitation = { scale: 1, timeS: null as number | null };

  /**
   * Assembles the circuit. Boxes are left out. Throws `circuit/pin-open`, `circuit/no-value`, `circuit/no-ground` or
   * `circuit/duplicate-ref`.
   */
  constructor(circuit: LayerCircuit) {
    this.circuit = circuit;
    const unknowns: SystemUnknown[] = [{ net: circuit.ground, name: circuit.ground }];
    this.netIndex.set(circuit.ground, 0);
    const modelled = circuit.parts.filter(isModelled);
    if (!modelled.some((p) => Object.values(p.pins).includes(circuit.ground))) {
      throw new ZembleError('circuit/no-ground', { net: circuit.ground });
    }
    for (const part of modelled) {
      for (const net of Object.values(part.pins)) {
        if (this.netIndex.has(net)) continue;
        this.netIndex.set(net, unknowns.length);
        unknowns.push({ net, name: net });
      }
    }
    // Every net has its diagonal, so that a shunt can be added while searching for the operating point.
    for (let i = 1; i < unknowns.length; i += 1) this.pattern.slot(i, i);
    this.insulated = hangingNets(circuit).map((net) => this.pattern.slot(this.node(net), this.node(net)));
    const loaded = new Set<number>();
    this.devices = modelled.map((part) => {
      const own: number[] = [];
      const device = this.build(part, unknowns, own);
      if (device.load) for (const slot of own) if (slot > 0) loaded.add(slot);
      this.slotsOf.set(device, own);
      return device;
    });
    this.loadedSlots = Int32Array.from(loaded);
    this.unknowns = unknowns;
    this.loading = this.devices.filter((d) => d.load);
    this.exciting = this.devices.filter((d) => d.excite);
    for (const device of this.devices) {
      if (this.byRef.has(device.ref)) throw new ZembleError('circuit/duplicate-ref', { ref: device.ref });
      this.byRef.set(device.ref, device);
    }
    this.rowOf = Int32Array.from(this.pattern.rows);
    this.columnOf = Int32Array.from(this.pattern.columns);
    this.linear = { g: new Float64Array(this.pattern.length), c: new Float64Array(this.pattern.length) };
    this.restamp();
  }

  private build(part: LayerPart, unknowns: SystemUnknown[], slots: number[]): Device {
    const optionalNode = (pin: string) => {
      const net = part.pins[pin];
      return net === undefined ? undefined : this.netIndex.get(net);
    };
    const constantSlot = (row: number, column: number) => this.pattern.slot(row, column);
    const terminals: Terminals = {
      models: this.circuit.models ?? [],
      constantSlot,
      optionalNode,
      node(pin) {
        const node = optionalNode(pin);
        if (node === undefined) throw new ZembleError('circuit/pin-open', { ref: part.ref, text: pin });
        return node;
      },
      unknown(name) {
        unknowns.push({ ref: part.ref, name });
        return unknowns.length - 1;
      },
      slot: (row, column) => {
        const slot = constantSlot(row, column);
        slots.push(slot);
        return slot;
      },
    };
    const { value } = part;
    if (value === 'open' || value === 'short') return deadPart(part, value, terminals);
    if (value === null && KINDS[part.kind].needsValue)
      throw new ZembleError('circuit/no-value', { ref: part.ref });
    const device = createDevice(part, value, terminals);
    if (!device)
      throw new ZembleError('analysis/no-model', { ref: part.ref, detail: KINDS[part.kind].words });
    return device;
  }

  /** Number of unknowns. */
  get size(): number {
    return this.unknowns.length - 1;
  }

  get isLinear(): boolean {
    return this.loading.length === 0;
  }

  /** Index of a net. Throws `circuit/unknown-net`. */
  node(net: string, where = 'The analysis'): number {
    const index = this.netIndex.get(netNamed(this.circuit, net));
    if (index === undefined) throw new ZembleError('circuit/unknown-net', { net, where });
    return index;
  }

  hasNet(net: string): boolean {
    return this.netIndex.has(netNamed(this.circuit, net));
  }

  /** Whether a part can take another main value in place. */
  canTurn(ref: string): boolean {
    return this.byRef.get(ref)?.retune !== undefined;
  }

  /** A device by designator. Throws `circuit/unknown-part`. */
  device(ref: string, where = 'The analysis'): Device {
    const device = this.byRef.get(ref);
    if (!device) throw new ZembleError('circuit/unknown-part', { ref, where });
    return device;
  }

  /** Rows in which a device has entries that change with the solution. */
  loadedRowsOf(device: Device): ReadonlySet<number> {
    return new Set((this.slotsOf.get(device) ?? []).filter((s) => s > 0).map((s) => this.rowOf[s]!));
  }

  /** The net names with their indices, ground first. */
  nets(): [string, number][] {
    return [...this.netIndex];
  }

  /** Gives parts other main values, without assembling again. Throws where a part cannot take one. */
  turn(parts: readonly { readonly ref: string; readonly value: number }[]): void {
    for (const { ref, value } of parts) {
      const device = this.device(ref);
      if (!device.retune) throw new Error(`${ref} cannot be turned in place.`);
      device.retune(value);
    }
    this.restamp();
  }

  private restamp(): void {
    this.linear.g.fill(0);
    this.linear.c.fill(0);
    for (const device of this.devices) device.stamp?.(this.linear);
    for (const slot of this.insulated) this.linear.g[slot] = this.linear.g[slot]! + OPEN_S;
  }

  reset(): void {
    for (const device of this.devices) device.reset?.();
  }

  /** An evaluation's arrays, to be reused; `isStatic` where time stands still. */
  evaluation(isStatic = true): Evaluation {
    const { length } = this.pattern;
    const rows = this.size + 1;
    return {
      g: new Float64Array(length),
      c: new Float64Array(length),
      f: new Float64Array(rows),
      q: new Float64Array(rows),
      isStatic,
      limited: false,
    };
  }

  /** G, C, and the non-linear parts of f and q at x. */
  evaluate(x: Float64Array, into: Evaluation): void {
    const { g, c, f, q } = into;
    const { g: linearG, c: linearC } = this.linear;
    for (let slot = 0; slot < g.length; slot += 1) {
      g[slot] = linearG[slot]!;
      c[slot] = linearC[slot]!;
    }
    for (let row = 0; row < f.length; row += 1) {
      f[row] = 0;
      q[row] = 0;
    }
    into.limited = false;
    for (let i = 0; i < this.loading.length; i += 1) this.loading[i]!.load!(x, into);
  }

  /**
   * Evaluates at a point until every damped junction has arrived there: devices that limit their steps need a few looks
   * at the same point before they stand on it.
   */
  settleAt(x: Float64Array, into: Evaluation): void {
    for (let look = 0; look < LARGEST_LOOKS; look += 1) {
      this.evaluate(x, into);
      if (!into.limited) return;
    }
  }

  /** What one device's curves give at a point, without its constant entries, standing there as in `settleAt`. */
  evaluationOf(ref: string, x: Float64Array): Evaluation {
    const own = this.evaluation();
    const device = this.device(ref);
    for (let look = 0; look < LARGEST_LOOKS && device.load; look += 1) {
      for (const array of [own.g, own.c, own.f, own.q]) array.fill(0);
      own.limited = false;
      device.load(x, own);
      if (!own.limited) break;
    }
    return own;
  }

  /** As `evaluate`, without the constant part: G and C hold only what the devices add, at `loadedSlots`. */
  evaluateLoaded(x: Float64Array, into: Evaluation): void {
    const { g, c, f, q } = into;
    g.fill(0);
    c.fill(0);
    f.fill(0);
    q.fill(0);
    into.limited = false;
    for (let i = 0; i < this.loading.length; i += 1) this.loading[i]!.load!(x, into);
  }

  excite(b: Float64Array, scale: number, timeS: number | null): void {
    for (let row = 0; row < b.length; row += 1) b[row] = 0;
    this.excitation.scale = scale;
    this.excitation.timeS = timeS;
    for (let i = 0; i < this.exciting.length; i += 1) this.exciting[i]!.excite!(b, this.excitation);
    b[0] = 0;
  }

  /** out += M x for a matrix given by slots. */
  multiplyAdd(values: Float64Array, x: Float64Array, out: Float64Array): void {
    const { rowOf: rows, columnOf: columns } = this;
    for (let slot = 1; slot < rows.length; slot += 1) {
      const row = rows[slot]!;
      out[row] = out[row]! + values[slot]! * x[columns[slot]!]!;
    }
  }

  /** The problem to report when the equations have no single solution at an unknown. */
  singularAt(unknown: number): Problem {
    const { net, ref } = this.unknowns[unknown]!;
    if (net === undefined) {
      const part = this.circuit.parts.find((p) => p.ref === ref);
      const nets = Object.values(part?.pins ?? {});
      return problem('circuit/singular', {
        net: nets.find((n) => n !== this.circuit.ground) ?? nets[0],
        parts: ref ? [ref] : [],
      });
    }
    return problem('circuit/singular', { net, parts: this.partsAt(net) });
  }

  partsAt(net: string): string[] {
    return (touching<LayerPart>(this.circuit).get(net) ?? []).map((p) => p.ref);
  }
}
