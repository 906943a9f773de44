/** A rectangle of a drawing, in its own units. */
export interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}
export interface Point {
  readonly x: number;
  readonly y: number;
}

/** A line along which two sheets are joined; its ends have the same names on both. */
export interface Join {
  readonly from: Point;
  readonly to: Point;
  readonly names: readonly [string, string];
}

/** A sheet of paper of a drawing that is larger than one. */
export interface Tile {
  /** "A1": its row by letter, its column by number. */
  readonly name: string;
  readonly row: number;
  readonly column: number;
  /** What is printed on it: its own part of the drawing and a little beyond where another joins it. */
  readonly box: Box;
  readonly joins: readonly Join[];
}

/** What a sheet of A4 (ISO 216, 210 by 297 mm) and one of letter (ANSI, 216 by 279 mm) both hold beside margins and a ruler, mm. */
export const SHEET_MM = { width: 180, height: 225 } as const;
/** Drawn beyond a join on both sheets, so that a cut that is a little off leaves no gap, mm. */
const OVERLAP_MM = 5;

/**
 * A drawing cut into sheets that paper of either size holds; one where it is no larger than that. Neighbours share the line at
 * which they are joined, and 5 mm beyond it.
 *
 * @param mmAUnit millimetres of one unit of the drawing, above zero
 */
export function inTiles(box: Box, mmAUnit: number): Tile[] {
  const share = (size: number, sheetMm: number) => {
    const sheet = sheetMm / mmAUnit;
    if (size <= sheet) return { count: 1, step: size };
    const count = Math.ceil(size / (sheet - (2 * OVERLAP_MM) / mmAUnit));
    return { count, step: size / count };
  };
  const across = share(box.width, SHEET_MM.width);
  const down = share(box.height, SHEET_MM.height);
  const over = OVERLAP_MM / mmAUnit;
  const letter = (n: number, first: 'A' | 'a') =>
    `${String.fromCharCode(first.charCodeAt(0) + (n % 26))}${n < 26 ? '' : Math.floor(n / 26)}`;
  const cross = (row: number, column: number) => ({
    at: { x: box.x + column * across.step, y: box.y + row * down.step },
    name: letter(row * (across.count + 1) + column, 'a'),
  });
  return Array.from({ length: down.count * across.count }, (_, i): Tile => {
    const [row, column] = [Math.floor(i / across.count), i % across.count];
    const corners = {
      topLeft: cross(row, column),
      topRight: cross(row, column + 1),
      bottomLeft: cross(row + 1, column),
      bottomRight: cross(row + 1, column + 1),
    };
    const join = (a: keyof typeof corners, b: keyof typeof corners): Join => ({
      from: corners[a].at,
      to: corners[b].at,
      names: [corners[a].name, corners[b].name],
    });
    const inner = {
      left: column > 0,
      right: column < across.count - 1,
      top: row > 0,
      bottom: row < down.count - 1,
    };
    const left = corners.topLeft.at.x - (inner.left ? over : 0);
    const right = corners.bottomRight.at.x + (inner.right ? over : 0);
    const top = corners.topLeft.at.y - (inner.top ? over : 0);
    const bottom = corners.bottomRight.at.y + (inner.bottom ? over : 0);
    return {
      name: `${letter(row, 'A')}${column + 1}`,
      row,
      column,
      box: { x: left, y: top, width: right - left, height: bottom - top },
      joins: [
        ...(inner.left ? [join('topLeft', 'bottomLeft')] : []),
        ...(inner.right ? [join('topRight', 'bottomRight')] : []),
        ...(inner.top ? [join('topLeft', 'topRight')] : []),
        ...(inner.bottom ? [join('bottomLeft', 'bottomRight')] : []),
      ],
    };
  });
}
