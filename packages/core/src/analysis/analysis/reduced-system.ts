import type { Device } from '../../circuit/devices/index.ts';
import {
  backReal,
  factorReal,
  planPartialElimination,
  reduceReal,
  SparsePattern,
  type EliminationPlan,
  type PartialPlan,
} from '../../base/numeric/index.ts';
import type { System } from './system.ts';

/** Entries that devices write while a run goes on: the row they count in, their slot, and the unknown they act on. */
interface LoadedEntries {
  /** Position of the row among the rows that are solved for, or of those that come last. */
  readonly at: Int32Array;
  readonly slot: Int32Array;
  readonly column: Int32Array;
}

/** How every unknown follows those solved for: unknown k has the entries from `starts[k]` to `starts[k + 1]`. */
export interface Spread {
  readonly starts: Int32Array;
  /** Which of those solved for, and by what factor. */
  readonly of: Int32Array;
  readonly factors: Float64Array;
}

/** A plan of what is eliminated, and where the devices' entries lie in what is left. */
export interface Reduction {
  readonly partial: PartialPlan;
  /** Rows that are solved for, and as many unknowns: all others follow from these by constant factors. */
  readonly rows: Int32Array;
  readonly columns: Int32Array;
  /** Slots of the block of those rows and unknowns, row by row; 0 where it is always zero. */
  readonly slots: Int32Array;
  readonly loaded: LoadedEntries;
  /** Rows whose equation says nothing but one unknown (the current of a source that holds a net): each comes last. */
  readonly tails: readonly Tail[];
  readonly tailLoaded: LoadedEntries;
}

interface Tail {
  readonly row: number;
  readonly column: number;
  /** Slots of the unknown itself and of each unknown solved for; 0 where there is none. */
  readonly slot: number;
  readonly slots: Int32Array;
}

/** The constant part for one step length: what was eliminated, and the block that is left. */
export interface ReducedStep {
  readonly reduction: Reduction;
  readonly values: Float64Array;
  /** Row by row; `rows.length` squared. */
  readonly block: Float64Array;
  readonly spread: Spread;
}

/** Step lengths of which the factors are kept. */
const KEPT_STEPS = 24;
/** A plan is used for scales within about this many decades of the one it was made for. */
const DECADES_A_PLAN = 3;

/**
 * The constant part G + scale C of a system, eliminated once for each step length. Newton's method then works on as many
 * unknowns as the non-linear devices have independent currents, two for a transistor and one for a diode, and the others
 * follow by constant factors:
 *
 * - of the rows between which a device only moves current (`balanced`), one is replaced by the sum of all, in which the
 *   device cancels;
 * - a row that only says what current the source of a held net gives is left to the end.
 */
export class ReducedSystem {
  /** Unknowns that the devices' equations depend on. */
  readonly seen: Int32Array;
  /** Eliminated rows in which devices add what does not follow the unknowns, and the rows of which that is the sum. */
  private readonly steadyInto: Int32Array;
  private readonly steadyFrom: Int32Array;
  private readonly system: System;
  private readonly keptRows: ReadonlySet<number>;
  private readonly tailOf: ReadonlyMap<number, number>;
  /** Rows that are added to another: which, and to which. */
  private readonly summed: Int32Array;
  private readonly sums: Int32Array;
  private readonly pattern = new SparsePattern();
  /** Where each constant entry comes from and goes to. */
  private readonly from: Int32Array;
  private readonly to: Int32Array;
  private readonly constant: Float64Array;
  private readonly columnScale: Float64Array;
  private readonly plans = new Map<number, Reduction>();
  private readonly steps = new Map<number, ReducedStep>();

  constructor(system: System) {
    this.system = system;
    const { rowOf, columnOf, loadedSlots } = system;
    const { g, c } = system.linear;
    this.seen = Int32Array.from(new Set(Array.from(loadedSlots, (slot) => columnOf[slot]!)));
    const loadedRows = new Set(Array.from(loadedSlots, (slot) => rowOf[slot]!));
    const constantSlots = Array.from(g.keys()).filter((s) => s > 0 && (c[s] !== 0 || g[s] !== 0));
    this.tailOf = tailsOf(system, constantSlots, loadedRows, new Set(this.seen));
    const sumOf = sumsOf(system, this.tailOf);
    this.summed = Int32Array.from(sumOf.keys());
    this.sums = Int32Array.from(sumOf.values());
    const totals = new Set(sumOf.values());
    this.keptRows = new Set([...loadedRows].filter((row) => !totals.has(row)));
    const steady = new Set(system.loading.flatMap((d) => d.steadyRows ?? []));
    const pairs = [...steady].flatMap((row) => {
      const total = sumOf.get(row) ?? row;
      if (!totals.has(total)) return loadedRows.has(row) ? [] : [[row, row] as const];
      const members = [total, ...[...sumOf].filter(([, into]) => into === total).map(([member]) => member)];
      return members.map((member) => [total, member] as const);
    });
    const distinct = [...new Map(pairs.map((pair) => [pair.join(), pair])).values()];
    this.steadyInto = Int32Array.from(distinct, ([into]) => into);
    this.steadyFrom = Int32Array.from(distinct, ([, of]) => of);
    const [from, to]: [number[], number[]] = [[], []];
    for (const slot of constantSlots) {
      const [row, column] = [rowOf[slot]!, columnOf[slot]!];
      const total = sumOf.get(row);
      for (const target of total === undefined ? [row] : [row, total]) {
        from.push(slot);
        to.push(this.pattern.slot(target, column));
      }
    }
    this.from = Int32Array.from(from);
    this.to = Int32Array.from(to);
    this.constant = new Float64Array(this.pattern.length);
    this.columnScale = new Float64Array(system.size + 1);
  }

  /**
   * The reduced equations for a scale, from those kept where they are there.
   *
   * @returns the step, or the unknown at which the constant part is singular
   */
  at(scale: number): ReducedStep | number {
    const known = this.steps.get(scale);
    if (known) return known;
    const made = this.make(scale);
    if (typeof made === 'number') return made;
    if (this.steps.size >= KEPT_STEPS) this.steps.delete(this.steps.keys().next().value!);
    this.steps.set(scale, made);
    return made;
  }

  /** Takes what devices add to eliminated rows off a right-hand side, in place. */
  steady(f: Float64Array, b: Float64Array): void {
    const { steadyInto, steadyFrom } = this;
    for (let i = 0; i < steadyInto.length; i += 1)
      b[steadyInto[i]!] = b[steadyInto[i]!]! - f[steadyFrom[i]!]!;
  }

  /** Takes what is eliminated off a right-hand side, in place. */
  reduce({ reduction, values }: ReducedStep, b: Float64Array): void {
    const { summed, sums } = this;
    for (let i = 0; i < summed.length; i += 1) b[sums[i]!] = b[sums[i]!]! + b[summed[i]!]!;
    reduceReal(reduction.partial.plan, values, b);
  }

  private make(scale: number): ReducedStep | number {
    const { constant, from, to, columnScale, pattern } = this;
    const { g, c } = this.system.linear;
    constant.fill(0);
    for (let i = 0; i < from.length; i += 1)
      constant[to[i]!] = constant[to[i]!]! + g[from[i]!]! + scale * c[from[i]!]!;
    columnScale.fill(0);
    for (let slot = 1; slot < constant.length; slot += 1) {
      const column = pattern.columns[slot]!;
      columnScale[column] = Math.max(columnScale[column]!, Math.abs(constant[slot]!));
    }
    const decade = Math.round(Math.log10(scale) / DECADES_A_PLAN);
    const planned = this.plans.get(decade) ?? this.plan();
    this.plans.set(decade, planned);
    const step = this.factored(planned);
    if (typeof step !== 'number') return step;
    // A pivot of the old plan vanished at this scale: the plan is made for it.
    const anew = this.plan();
    this.plans.set(decade, anew);
    return this.factored(anew);
  }

  private plan(): Reduction {
    const { size } = this.system;
    const tailColumns = new Set(this.tailOf.values());
    const partial = planPartialElimination(this.pattern, size, this.constant, this.keptRows, tailColumns);
    const width = partial.columns.length;
    const slotAt = (row: number, column: number) =>
      partial.slots[partial.rows.indexOf(row) * width + partial.columns.indexOf(column)]!;
    const rows = partial.rows.filter((row) => !this.tailOf.has(row));
    const columns = partial.columns.filter((column) => !tailColumns.has(column));
    const tails = [...this.tailOf].map(([row, column]) => ({
      row,
      column,
      slot: slotAt(row, column),
      slots: columns.map((c) => slotAt(row, c)),
    }));
    return {
      partial,
      rows,
      columns,
      slots: Int32Array.from([...rows].flatMap((row) => [...columns].map((column) => slotAt(row, column)))),
      loaded: this.entriesIn([...rows]),
      tails,
      tailLoaded: this.entriesIn(tails.map((t) => t.row)),
    };
  }

  /** The devices' entries in some rows. */
  private entriesIn(rows: readonly number[]): LoadedEntries {
    const { loadedSlots, rowOf, columnOf } = this.system;
    const slots = [...loadedSlots].filter((slot) => rows.includes(rowOf[slot]!));
    return {
      at: Int32Array.from(slots, (slot) => rows.indexOf(rowOf[slot]!)),
      slot: Int32Array.from(slots),
      column: Int32Array.from(slots, (slot) => columnOf[slot]!),
    };
  }

  private factored(reduction: Reduction): ReducedStep | number {
    const { partial, columns, slots } = reduction;
    const values = new Float64Array(partial.plan.length);
    values.set(this.constant);
    const failed = factorReal(partial.plan, values, this.columnScale);
    if (failed >= 0) return partial.plan.columns[failed]!;
    const block = Float64Array.from(slots, (slot) => (slot === 0 ? 0 : values[slot]!));
    return { reduction, values, block, spread: this.spreadOf(partial.plan, values, columns) };
  }

  private spreadOf(plan: EliminationPlan, values: Float64Array, columns: Int32Array): Spread {
    const rows = this.system.size + 1;
    const nothing = new Float64Array(rows);
    const followers = Array.from(columns, (column) => {
      const x = new Float64Array(rows);
      x[column] = 1;
      backReal(plan, values, nothing, x);
      return x;
    });
    const starts = new Int32Array(rows + 1);
    const [of, factors]: [number[], number[]] = [[], []];
    for (let k = 0; k < rows; k += 1) {
      starts[k] = of.length;
      followers.forEach((x, j) => {
        if (x[k] === 0) return;
        of.push(j);
        factors.push(x[k]!);
      });
    }
    starts[rows] = of.length;
    return { starts, of: Int32Array.from(of), factors: Float64Array.from(factors) };
  }
}

/** What the eliminated unknowns are when those solved for are zero, from the reduced right-hand side, into `x`. */
export function baseOf({ reduction, values }: ReducedStep, b: Float64Array, x: Float64Array): void {
  const { columns, tails, partial } = reduction;
  for (let j = 0; j < columns.length; j += 1) x[columns[j]!] = 0;
  for (let i = 0; i < tails.length; i += 1) x[tails[i]!.column] = 0;
  backReal(partial.plan, values, b, x);
}

/** Rows of devices that alone have the unknown of one column, in which no device has a say: row to column. */
function tailsOf(
  system: System,
  constantSlots: readonly number[],
  loadedRows: ReadonlySet<number>,
  seen: ReadonlySet<number>,
): Map<number, number> {
  const { rowOf, columnOf } = system;
  const entries = new Uint32Array(system.size + 1);
  for (const slot of constantSlots) entries[columnOf[slot]!] = entries[columnOf[slot]!]! + 1;
  const found = new Map<number, number>();
  for (const slot of constantSlots) {
    const [row, column] = [rowOf[slot]!, columnOf[slot]!];
    if (entries[column] === 1 && loadedRows.has(row) && !seen.has(column) && !found.has(row))
      found.set(row, column);
  }
  return found;
}

/**
 * Rows that are added to one of them, so that what devices move between them cancels: row to sum. Rows that touch the
 * ground's, one that is left to the end, or one of a device that keeps no balance, have nothing to gain.
 */
function sumsOf(system: System, tails: ReadonlyMap<number, number>): Map<number, number> {
  const group = new Map<number, Set<number>>();
  const groupOf = (row: number) => {
    const known = group.get(row) ?? new Set([row]);
    group.set(row, known);
    return known;
  };
  const unbalanced = new Set<number>([0, ...tails.keys()]);
  const join = (device: Device) => {
    const loaded = system.loadedRowsOf(device);
    const balanced = (device.balanced ?? []).filter((row) => row === 0 || loaded.has(row));
    for (const row of loaded) if (!balanced.includes(row)) unbalanced.add(row);
    for (const row of balanced.slice(1)) {
      const [into, other] = [groupOf(balanced[0]!), groupOf(row)];
      if (into === other) continue;
      for (const member of other) {
        into.add(member);
        group.set(member, into);
      }
    }
  };
  system.loading.forEach(join);
  const sums = new Map<number, number>();
  for (const members of new Set(group.values())) {
    if ([...members].some((row) => unbalanced.has(row))) continue;
    const [total, ...others] = members;
    for (const row of others) sums.set(row, total!);
  }
  return sums;
}
