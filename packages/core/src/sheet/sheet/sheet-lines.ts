import type { Problem } from '../../base/errors/index.ts';
import { problem } from '../../base/errors/index.ts';
import type { Circuit, Part } from '../../circuit/circuit/index.ts';
import { parseSheetLine } from './sheet-line.ts';

/** A line of a list that could not be read, and why. */
export interface RefusedLine {
  readonly line: string;
  readonly problem: Problem;
}

export interface SheetLinesResult {
  /** In the order of the list. */
  readonly parts: readonly Part[];
  readonly refused: readonly RefusedLine[];
}

/** What stands before a line in lists that people keep: a bullet, a number with its bracket or full stop. */
const BULLET = /^\s*(?:[-–•*·]|\d+[.)])\s+/;
/** Signs that no list has on purpose, and no record keeps. */
const UNPRINTED = /\p{Cc}/u;
const UNPRINTED_ALL = /\p{Cc}/gu;
const COMMENT = /^\s*(?:#|\/\/)/;

/**
 * Reads a list of parts, a line each, as it is pasted: bullets and numbers before the lines are left away, empty lines and those that begin with `#`
 * or `//` are passed over. A line that cannot be read, and a designator that the list has twice, are refused with the reason; the others are read.
 *
 * @param known the circuit that the list goes into, with its ground and nets
 */
export function parseSheetLines(text: string, known: Circuit): SheetLinesResult {
  const parts: Part[] = [];
  const refused: RefusedLine[] = [];
  const lineOf = new Map<string, string>();
  for (const raw of text.split(/\r\n|\r|\n/)) {
    const line = raw.replace(BULLET, '').replace(/\s+/g, ' ').trim();
    if (line === '' || COMMENT.test(raw)) continue;
    if (UNPRINTED.test(line)) {
      const detail = 'The line has a sign that cannot be printed; type it anew.';
      refused.push({
        line: line.replace(UNPRINTED_ALL, ''),
        problem: problem('sheet/unreadable', { detail }),
      });
      continue;
    }
    const read = parseSheetLine(line, { ...known, parts: [...known.parts, ...parts] });
    if (!read.ok) {
      refused.push({ line, problem: read.problem });
      continue;
    }
    const { ref } = read.part;
    const before = lineOf.get(ref.toLowerCase());
    if (before !== undefined) {
      const detail = `${ref} is in the list already, as "${before}"; give one of them another designator.`;
      refused.push({ line, problem: problem('sheet/unreadable', { detail, ref }) });
      continue;
    }
    lineOf.set(ref.toLowerCase(), line);
    parts.push(read.part);
  }
  return { parts, refused };
}
