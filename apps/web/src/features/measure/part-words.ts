import {
  aspectsOf,
  aspectText,
  isPType,
  markedValue,
  formatQuantity,
  KINDS,
  QUANTITY_KINDS,
  usualTolerance,
  type Part,
} from '@zemble/core';

const unitOfPart = (part: Part) => QUANTITY_KINDS[KINDS[part.kind].value ?? 'number'];

/** A value of a part in its unit. */
export const valueWords = (part: Part, value: number | 'open' | 'short'): string =>
  typeof value === 'number' ? formatQuantity(value, unitOfPart(part), { digits: 4 }) : value;

/** A reading of a part, of its value or of something else. */
export const readingWords = (
  part: Part,
  value: number | 'open' | 'short',
  aspect: string | null | undefined,
): string => (aspect ? aspectText(part, aspect, value) : valueWords(part, value));

/** What is printed on a part, with its tolerance. */
export function markingOf(part: Part): string {
  if (KINDS[part.kind].value === null) return part.model ?? KINDS[part.kind].words;
  const marked = markedValue(part);
  if (typeof marked !== 'number') return 'no marking';
  const value = formatQuantity(marked, unitOfPart(part));
  if (['speaker', 'headphone', 'load'].includes(part.kind)) return `nominal ${value}`;
  return `${value} ±${Number((usualTolerance(part) * 100).toPrecision(2))} %`;
}

/** What can be typed of a part beside its value, as it is typed: "be 0.65V", "gain 200". */
export function typedAspects(part: Part): string[] {
  const blocking = part.kind === 'bjt' && isPType(part) ? ['b-e', 'b-c'] : REVERSED;
  return aspectsOf(part)
    .filter((a) => !blocking.includes(a.id))
    .map((a) => {
      const word = a.words.at(a.id.includes('-') ? 1 : 0)!;
      if (a.isWordAlone) return word;
      return `${word} ${EXAMPLES[a.id] ?? EXAMPLES[a.quantity] ?? '1'}`;
    });
}

/** The same junction with the leads the other way about, where it blocks, need not be offered. */
const REVERSED = ['k-a', 'e-b', 'c-b', 's-g', 'd-g'];
/** A usual value, by what is read or by its quantity. */
const EXAMPLES: Readonly<Record<string, string>> = {
  middle: '24k',
  end: '3',
  contact: '0.1',
  'c-e': 'OL',
  voltage: '0.65V',
  resistor: '6.4',
  current: '2uA',
  number: '200',
};
