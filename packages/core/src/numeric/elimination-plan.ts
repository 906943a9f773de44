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
  const rowSlots: Map<number, number>[] = Array.from({ length: size + 1 }, () => new Map());
  const columnRows: Set<number>[] = Array.from({ length: size + 1 }, () => new Set());
  const value: number[] = Array.from(sample.subarray(0, pattern.length));
  for (let slot = 1; slot < pattern.length; slot += 1) {
    rowSlots[pattern.rows[slot]!]!.set(pattern.columns[slot]!, slot);
    columnRows[pattern.columns[slot]!]!.add(pattern.rows[slot]!);
  }
  const columnScale = new Float64Array(size + 1);
  for (let slot = 1; slot < pattern.length; slot += 1) {
    const column = pattern.columns[slot]!;
    columnScale[column] = Math.max(columnScale[column]!, Math.abs(value[slot]!));
  }
  let length = pattern.length;
  const program: number[] = [];
  const starts = new Int32Array(size);
  const columns = new Int32Array(size);
  const openRows = new Set(Array.from({ length: size }, (_, i) => i + 1));
  const openColumns = new Set(openRows);

  for (let step = 0; step < size; step += 1) {
    const pivot = choosePivot(openColumns, rowSlots, columnRows, value);
    const failed =
      pivot === undefined || !(Math.abs(value[pivot.slot]!) > SINGULAR_RATIO * columnScale[pivot.column]!);
    if (failed) return { ok: false, column: pivot?.column ?? [...openColumns][0]! };
    const { row, column, slot } = pivot;
    const right = [...rowSlots[row]!].filter(([c]) => c !== column);
    const below = [...columnRows[column]!].filter((r) => r !== row);
    starts[step] = program.length;
    columns[step] = column;
    program.push(slot, row, column, below.length, right.length);
    for (const [c, s] of right) program.push(s, c);
    for (const r of below) {
      const factorSlot = rowSlots[r]!.get(column)!;
      program.push(factorSlot, r);
      const factor = value[factorSlot]! / value[slot]!;
      for (const [c, s] of right) {
        let target = rowSlots[r]!.get(c);
        if (target === undefined) {
          target = length;
          length += 1;
          rowSlots[r]!.set(c, target);
          columnRows[c]!.add(r);
          value.push(0);
        }
        value[target] = value[target]! - factor * value[s]!;
        program.push(target);
      }
      rowSlots[r]!.delete(column);
    }
    for (const [c] of right) columnRows[c]!.delete(row);
    openRows.delete(row);
    openColumns.delete(column);
    columnRows[column]!.clear();
  }
  return { ok: true, plan: { size, length, program: Int32Array.from(program), starts, columns } };
}

/** A pivot smaller than this part of its column's largest entry is rounding noise, not a number. */
export const SINGULAR_RATIO = 1e-15;

function choosePivot(
  openColumns: ReadonlySet<number>,
  rowSlots: readonly Map<number, number>[],
  columnRows: readonly Set<number>[],
  value: readonly number[],
): { row: number; column: number; slot: number } | undefined {
  let best: { row: number; column: number; slot: number } | undefined;
  let bestCost = Number.POSITIVE_INFINITY;
  let bestSize = 0;
  for (const column of openColumns) {
    let largest = 0;
    for (const row of columnRows[column]!)
      largest = Math.max(largest, Math.abs(value[rowSlots[row]!.get(column)!]!));
    if (largest === 0) continue;
    for (const row of columnRows[column]!) {
      const slot = rowSlots[row]!.get(column)!;
      const size = Math.abs(value[slot]!) / largest;
      if (size < PIVOT_THRESHOLD) continue;
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
