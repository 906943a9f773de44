import { controlState } from './control.ts';
import { KINDS } from './kinds.ts';
import type { Part } from './part.ts';
import { formatCode } from '../../base/quantity/index.ts';

/** Digits that a value beside a symbol has at most. */
const DIGITS = 3;

/** Text beside a symbol: a value as it is printed on parts (4k7, 100n, 9V), a word, or the type number. */
export function printedText(part: Pick<Part, 'kind' | 'model'>, value: unknown): string {
  if (typeof value === 'number') {
    if (KINDS[part.kind].value === 'voltage') {
      const text = formatCode(value, DIGITS, 'V');
      return text.includes('V') ? text : `${text}V`;
    }
    return formatCode(value, DIGITS, part.kind === 'capacitor' ? 'F' : 'R');
  }
  return typeof value === 'string' ? value : (part.model ?? '');
}

/** Text beside a symbol with where its knob stands: "100k 50 %". A contact and a throw are drawn as they stand. */
export function symbolText(part: Part, value: unknown): string {
  const travel = controlState(part);
  const printed = printedText(part, value);
  return typeof travel === 'number' ? `${printed} ${Math.round(PER_CENT * travel)} %`.trim() : printed;
}

/** The longest that the text beside a symbol gets wherever its knob is turned: the room that a drawing leaves for it. */
export const symbolTextRoom = (part: Part, value: unknown): string =>
  symbolText(part.kind === 'potentiometer' ? { ...part, position: 1 } : part, value);

const PER_CENT = 100;
