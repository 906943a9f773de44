import type { SparsePattern } from './sparse-pattern.ts';

/**
 * Sparse Gaussian elimination, planned once and replayed many times.
 *
 * The plan chooses the pivots on sample values (Markowitz 1957: least fill first, among pivots not smaller than
 * `PIVOT_THRESHOLD` of their column) and writes the whole elimination down as a list of positions. A replay walks
 * that list over typed arrays without search, branch or allocation.
 */
const PIVOT_THRESHOLD = 1e-3;

export interface EliminationPlan {
  /** Steps of the elimination: all unknowns, or fewer when it is a beginning. */
  readonly size: number;
  /** Length of the value arrays: slots of the pattern, then fill-in. */
  readonly length: number;
  /**
   * For each step: pivot slot, row, column, count of rows below, count of columns right; then a slot and column for
   * each column right; then for each row below its slot, its row, and a target slot for each column right.
   */
  readonly program: Int32Array;
  /** Where each step begins in the program. */
  readonly starts: Int32Array;
  /** Unknown (row or column, whichever named it) of each step, to say where a pivot vanished. */
  readonly columns: Int32Array;
}

/** The beginning of an elimination: what is left is a dense block of rows and columns. */
export interface PartialPlan {
  readonly plan: EliminationPlan;
  /** Rows and columns left, as many of one as of the other. */
  readonly rows: Int32Array;
  readonly columns: Int32Array;
  /** Slot of each entry of the block, row by row; 0 where it is always zero. */
  readonly slots: Int32Array;
}

export type PlanResult =
  | { readonly ok: true; readonly plan: EliminationPlan }
  /** `column`: the unknown for which no pivot was left. */
  | { readonly ok: false; readonly column: number };

/**
 * Plans the elimination of an n by n matrix.
 *
 * @param pattern slots of the matrix
 * @param size n, unknowns 1..n
 * @param sample values by slot, of a typical matrix (magnitudes for a complex one)
 * @returns the plan, or the unknown at which the matrix is singular to working precision
 */
export function planElimination(pattern: SparsePattern, size: number, sample: Float64Array): PlanResult {
  const planner = new Planner(pattern, size, sample);
  while (planner.openCount > 0) {
    const pivot = planner.choose();
    if (!pivot) return { ok: false, column: planner.someOpenColumn() };
    if (planner.isNoise(pivot)) return { ok: false, column: pivot.column };
    planner.eliminate(pivot);
  }
  return { ok: true, plan: planner.plan() };
}

/**
 * Plans the elimination of all rows but those kept, as far as there are pivots: what changes all the time is kept, and
 * the rest is eliminated once.
 *
 * @param keptRows rows that stay
 * @param keptColumns unknowns that stay, whatever others are left with them
 */
export function planPartialElimination(
  pattern: SparsePattern,
  size: number,
  sample: Float64Array,
  keptRows: ReadonlySet<number>,
  keptColumns: ReadonlySet<number>,
): PartialPlan {
  const planner = new Planner(pattern, size, sample);
  const next = () => planner.choose(keptRows, keptColumns);
  for (let pivot = next(); pivot; pivot = next()) planner.eliminate(pivot);
  return planner.rest();
}

interface Pivot {
  readonly row: number;
  readonly column: number;
  readonly slot: number;
}

/** A matrix with an elimination under way, on sample values, and what was done so far as a program. */
class Planner {
  private readonly rowSlots: Map<number, number>[];
  private readonly columnRows: Set<number>[];
  private readonly value: number[];
  /** Bound of the rounding that each entry has accumulated, to first order (Wilkinson 1963). */
  private readonly rounding: number[];
  private readonly columnScale: Float64Array;
  private readonly openRows: Set<number>;
  private readonly openColumns: Set<number>;
  private readonly program: number[] = [];
  private readonly starts: number[] = [];
  private readonly columns: number[] = [];
  private length: number;

  constructor(pattern: SparsePattern, size: number, sample: Float64Array) {
    this.rowSlots = Array.from({ length: size + 1 }, () => new Map());
    this.columnRows = Array.from({ length: size + 1 }, () => new Set());
    this.value = Array.from(sample.subarray(0, pattern.length));
    this.rounding = this.value.map((v) => UNIT_ROUNDOFF * Math.abs(v));
    this.columnScale = new Float64Array(size + 1);
    for (let slot = 1; slot < pattern.length; slot += 1) {
      const [row, column] = [pattern.rows[slot]!, pattern.columns[slot]!];
      this.rowSlots[row]!.set(column, slot);
      this.columnRows[column]!.add(row);
      this.columnScale[column] = Math.max(this.columnScale[column]!, Math.abs(this.value[slot]!));
    }
    this.length = pattern.length;
    this.openRows = new Set(Array.from({ length: size }, (_, i) => i + 1));
    this.openColumns = new Set(this.openRows);
  }

  get openCount(): number {
    return this.openRows.size;
  }

  someOpenColumn(): number {
    return [...this.openColumns][0]!;
  }

  /** A pivot that is no more than what rounding can have left there, or nothing against its column. */
  isNoise({ slot, column }: Pivot): boolean {
    const size = Math.abs(this.value[slot]!);
    return !(size > SINGULAR_RATIO * this.columnScale[column]!) || !(size > this.rounding[slot]!);
  }

  /**
   * The pivot of least fill (Markowitz 1957) that is not small in its column; undefined when there is none. Rows and
   * columns kept give no pivot, and with them one that is small in its row is left as well.
   */
  choose(keptRows?: ReadonlySet<number>, keptColumns?: ReadonlySet<number>): Pivot | undefined {
    const { rowSlots, columnRows, value } = this;
    let best: Pivot | undefined;
    let bestCost = Number.POSITIVE_INFINITY;
    let bestSize = 0;
    for (const column of this.openColumns) {
      if (keptColumns?.has(column)) continue;
      let largest = 0;
      for (const row of columnRows[column]!)
        largest = Math.max(largest, Math.abs(value[rowSlots[row]!.get(column)!]!));
      if (largest === 0) continue;
      for (const row of columnRows[column]!) {
        if (keptRows?.has(row)) continue;
        const slot = rowSlots[row]!.get(column)!;
        const size = Math.abs(value[slot]!) / largest;
        if (size < PIVOT_THRESHOLD) continue;
        if (keptRows && Math.abs(value[slot]!) < LEAST_OF_ROW * this.largestOf(row)) continue;
        const cost = (rowSlots[row]!.size - 1) * (columnRows[column]!.size - 1);
        const isBetter =
          cost < bestCost || (cost === bestCost && (row === column ? size * 2 : size) > bestSize);
        if (isBetter) {
          best = { row, column, slot };
          bestCost = cost;
          bestSize = row === column ? size * 2 : size;
        }
      }
    }
    return best;
  }

  private largestOf(row: number): number {
    let largest = 0;
    for (const slot of this.rowSlots[row]!.values()) largest = Math.max(largest, Math.abs(this.value[slot]!));
    return largest;
  }

  /** Writes one step down and carries it out on the sample. */
  eliminate({ row, column, slot }: Pivot): void {
    const { rowSlots, columnRows, value, rounding, program } = this;
    const right = [...rowSlots[row]!].filter(([c]) => c !== column);
    const below = [...columnRows[column]!].filter((r) => r !== row);
    this.starts.push(program.length);
    this.columns.push(column);
    program.push(slot, row, column, below.length, right.length);
    for (const [c, s] of right) program.push(s, c);
    for (const r of below) {
      const factorSlot = rowSlots[r]!.get(column)!;
      program.push(factorSlot, r);
      const factor = value[factorSlot]! / value[slot]!;
      const factorRounding =
        (rounding[factorSlot]! + Math.abs(factor) * rounding[slot]!) / Math.abs(value[slot]!) +
        UNIT_ROUNDOFF * Math.abs(factor);
      for (const [c, s] of right) {
        let target = rowSlots[r]!.get(c);
        if (target === undefined) {
          target = this.length;
          this.length += 1;
          rowSlots[r]!.set(c, target);
          columnRows[c]!.add(r);
          value.push(0);
          rounding.push(0);
        }
        value[target] = value[target]! - factor * value[s]!;
        rounding[target] =
          rounding[target]! +
          Math.abs(factor) * rounding[s]! +
          factorRounding * Math.abs(value[s]!) +
          UNIT_ROUNDOFF * Math.abs(value[target]!);
        program.push(target);
      }
      rowSlots[r]!.delete(column);
    }
    for (const [c] of right) columnRows[c]!.delete(row);
    this.openRows.delete(row);
    this.openColumns.delete(column);
    columnRows[column]!.clear();
  }

  plan(): EliminationPlan {
    return {
      size: this.starts.length,
      length: this.length,
      program: Int32Array.from(this.program),
      starts: Int32Array.from(this.starts),
      columns: Int32Array.from(this.columns),
    };
  }

  rest(): PartialPlan {
    const [rows, columns] = [[...this.openRows], [...this.openColumns]];
    const slots = rows.flatMap((r) => columns.map((c) => this.rowSlots[r]!.get(c) ?? 0));
    return {
      plan: this.plan(),
      rows: Int32Array.from(rows),
      columns: Int32Array.from(columns),
      slots: Int32Array.from(slots),
    };
  }
}

/**
 * Where rows are kept a pivot is no smaller than this part of its own row: the unknowns that are left are multiplied by the rest of
 * the row over the pivot, and so is their rounding.
 */
const LEAST_OF_ROW = 1e-4;
/** Unit roundoff of double precision. */
const UNIT_ROUNDOFF = 2 ** -53;

/** A pivot smaller than this part of its column's largest entry is rounding noise, not a number. */
export const SINGULAR_RATIO = 1e-15;
