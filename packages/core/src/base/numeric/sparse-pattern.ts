/**
 * Where a square matrix can be non-zero. Rows and columns count from 1; index 0 is the ground, whose row and column
 * do not exist: every position in them is slot 0, a place to write to that nobody reads. So a stamp never has to ask
 * whether a pin is grounded.
 */
export class SparsePattern {
  readonly rows: number[] = [0];
  readonly columns: number[] = [0];
  private readonly slots = new Map<number, number>();
  private static readonly STRIDE = 2 ** 20;

  /** The slot of (row, column), made when it is not there yet. */
  slot(row: number, column: number): number {
    if (row === 0 || column === 0) return 0;
    const key = row * SparsePattern.STRIDE + column;
    const known = this.slots.get(key);
    if (known !== undefined) return known;
    const slot = this.rows.length;
    this.rows.push(row);
    this.columns.push(column);
    this.slots.set(key, slot);
    return slot;
  }

  /** Number of slots, slot 0 included. */
  get length(): number {
    return this.rows.length;
  }
}
