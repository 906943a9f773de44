import { KINDS, type LayerPart, type Part } from '../../circuit/circuit/index.ts';
import {
  combine,
  exactText,
  nearestPreferred,
  QUANTITY_KINDS,
  formatQuantity,
  preferredBetween,
} from '../../base/quantity/index.ts';
import { pairKindOf } from './value-change.ts';

/** How another value is tried before anything is soldered. */
export interface Trial {
  readonly sentence: string;
  /** The trial as a change is typed, with `?` for the number of a new designator. */
  readonly line: string;
}

/**
 * How a part's new value is tried with clips: what adds up is clipped across and takes nothing out; what does not needs a leg
 * out and something in series, or a decade box.
 *
 * @param from its value now, above zero
 * @param to the value that is to be tried, above zero and another one
 */
export function trialOf(part: Part | LayerPart, from: number, to: number): Trial {
  const kind = pairKindOf(part);
  const quantity = KINDS[part.kind].value!;
  const text = (value: number) => formatQuantity(value, QUANTITY_KINDS[quantity]);
  const letter = kind === 'capacitor' ? 'C' : kind === 'inductor' ? 'L' : 'R';
  const [first = '', second = ''] = Object.keys(part.pins);
  const [a, b] = [part.pins[first], part.pins[second]];
  const addsAcross = kind === 'capacitor';
  const isAcross = addsAcross === to > from;
  // What is missing adds up where the kind does, and where it does not its reciprocal is missing.
  const adds = isAcross === addsAcross;
  const exact = adds ? to - from : 1 / (1 / to - 1 / from);
  const value = nearestPreferred(Math.abs(exact), 'E12');
  const comes = combine(from, value, isAcross ? 'parallel' : 'series', kind);
  if (isAcross)
    return {
      sentence: `Clip ${text(value)} across ${part.ref}: ${text(comes)} together, and nothing comes out.`,
      line: `+${letter}? ${exactText(value, quantity)} ${a} ${b}`,
    };
  const pot = preferredBetween(value, 10 * value, 'E3')[0]!;
  const box =
    kind === 'resistor'
      ? ` A trim pot of ${text(pot)} in its place sweeps it; a decade box at ${text(value)} holds it.`
      : '';
  return {
    sentence: `Lift a leg of ${part.ref} and clip ${text(value)} in series: ${text(comes)} together.${box}`,
    line: `+${letter}? ${exactText(value, quantity)} in series with ${part.ref}.${first}`,
  };
}

/** What is heard of a trial, and what the next one is to be of what this one was. */
const HEARD: readonly (readonly [RegExp, number])[] = [
  [/\b(half|halve)\b/i, 0.5],
  [/\b(twice|double|doubled)\b/i, 2],
  [/\bthird\b/i, 1 / 3],
  [/\b(much (less|slower|quieter|duller|lower))\b/i, 0.5],
  [/\b(much (more|faster|louder|brighter|higher))\b/i, 2],
  [/\b(less|slower|quieter|duller|lower)\b/i, 0.7],
  [/\b(more|faster|louder|brighter|higher)\b/i, 1.4],
];
const TOO: readonly (readonly [RegExp, number])[] = [
  [/\btoo (slow|little|quiet|dull|low|small|weak)\b/i, 1.4],
  [/\btoo (fast|much|loud|bright|high|large|strong)\b/i, 0.7],
];

/**
 * What an answer such as "too slow, half" makes of what was tried: a factor on how much of it there is to be. A number says it
 * outright ("x 1.5", "0.8 times"); "half" and "twice" say how much, and "too slow" which way where nothing else does.
 *
 * @param isMoreFaster whether more of what is asked for makes it faster, louder, higher; false where it makes it slower
 * @returns the factor, or null for an answer that says neither
 */
export function heardFactor(text: string, isMoreFaster: boolean): number | null {
  const number = /(?:[x×]\s*([\d.,]+))|(?:([\d.,]+)\s*(?:times|x|×))/i.exec(text);
  if (number) {
    const factor = Number((number[1] ?? number[2])!.replace(',', '.'));
    return factor > 0 && Number.isFinite(factor) ? factor : null;
  }
  const way = TOO.find(([words]) => words.test(text))?.[1];
  const size = HEARD.find(([words]) => words.test(text))?.[1];
  if (way !== undefined) {
    const isUp = isMoreFaster === way > 1;
    const by = size === undefined ? 1.4 : Math.max(size, 1 / size);
    return isUp ? by : 1 / by;
  }
  if (size === undefined) return null;
  const isAmount = /\b(half|halve|twice|double|doubled|third|less|more)\b/i.test(text);
  return isAmount || isMoreFaster ? size : 1 / size;
}
