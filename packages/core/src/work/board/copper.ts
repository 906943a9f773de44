import type { Board, BoardStyle, Hole } from '@zemble/contract';
import { UnionFind } from '../../circuit/circuit/index.ts';

/** The copper of a board: strips between cuts, or pads, joined by links. */
export class Copper {
  readonly columns: number;
  readonly rows: number;
  private readonly style: BoardStyle;
  /** Columns of the cuts of each row, ascending. */
  private readonly cuts: ReadonlyMap<number, readonly number[]>;
  private readonly joined = new UnionFind();

  constructor({
    style,
    columns,
    rows,
    cuts,
    links,
  }: Pick<Board, 'style' | 'columns' | 'rows' | 'cuts' | 'links'>) {
    this.style = style;
    this.columns = columns;
    this.rows = rows;
    const byRow = new Map<number, number[]>();
    for (const [column, row] of cuts) byRow.set(row, [...(byRow.get(row) ?? []), column]);
    for (const list of byRow.values()) list.sort((a, b) => a - b);
    this.cuts = byRow;
    for (const { from, to } of links) {
      const [a, b] = [this.islandAt(from), this.islandAt(to)];
      if (a !== null && b !== null) this.joined.join(a, b);
    }
  }

  isOn([column, row]: Hole): boolean {
    return column >= 0 && row >= 0 && column < this.columns && row < this.rows;
  }

  isCut([column, row]: Hole): boolean {
    return this.cuts.get(row)?.includes(column) === true;
  }

  /** The strip or pad at a hole, before links; null where there is no copper. */
  private islandAt(hole: Hole): string | null {
    if (!this.isOn(hole) || this.isCut(hole)) return null;
    const [column, row] = hole;
    if (this.style === 'pads') return `${column} ${row}`;
    const before = (this.cuts.get(row) ?? []).findLast((c) => c < column);
    return `${(before ?? -1) + 1} ${row}`;
  }

  /** The piece of copper at a hole, by a name of its own; null where there is none. */
  pieceAt(hole: Hole): string | null {
    const island = this.islandAt(hole);
    return island === null ? null : this.joined.find(island);
  }

  /** All holes of the board by the piece of copper that they are on. */
  holesByPiece(): ReadonlyMap<string, readonly Hole[]> {
    const found = new Map<string, Hole[]>();
    for (let row = 0; row < this.rows; row += 1)
      for (let column = 0; column < this.columns; column += 1) {
        const piece = this.pieceAt([column, row]);
        if (piece === null) continue;
        const holes = found.get(piece);
        if (holes) holes.push([column, row]);
        else found.set(piece, [[column, row]]);
      }
    return found;
  }
}
