import { parseSheetLine, type Part, type UnitDocument } from '@zemble/core';
import type { PhotoResource, ReadingCondition } from '@zemble/contract';

/** A unit of the workshop of Radio Brindle, a made-up valley station, with what has been measured on it so far. */
export interface DemoUnit {
  readonly document: UnitDocument;
  readonly readings: readonly DemoReading[];
  readonly story: readonly string[];
  readonly photos?: readonly DemoPhoto[];
}

/** A picture of a board as a drawing, with points on it. */
export interface DemoPhoto {
  readonly name: string;
  readonly svg: string;
  readonly points: PhotoResource['points'];
  /** A link is to another picture of the unit by its name. */
  readonly overlay?: PhotoResource['overlay'];
}

export interface DemoReading {
  readonly ref: string;
  readonly value: number;
  readonly condition: ReadingCondition;
}

/** Parts from lines of the parts sheet, as a user would type them. Throws on a line that cannot be read. */
export function partsFromLines(lines: string): Part[] {
  return lines
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '')
    .map((line) => {
      const read = parseSheetLine(line);
      if (!read.ok) throw new Error(`${line}: ${read.problem.message}`);
      return read.part;
    });
}
