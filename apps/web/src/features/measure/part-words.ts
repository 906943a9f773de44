import { formatQuantity, KINDS, QUANTITY_KINDS, usualTolerance, type Part } from '@halfsplit/core';

const unitOfPart = (part: Part) => QUANTITY_KINDS[KINDS[part.kind].value ?? 'number'];

/** A value of a part in its unit. */
export const valueWords = (part: Part, value: number | 'open' | 'short'): string =>
  typeof value === 'number' ? formatQuantity(value, unitOfPart(part), { digits: 4 }) : value;

/** What is printed on a part, with its tolerance. */
export function markingOf(part: Part): string {
  if (typeof part.marked !== 'number') return 'no marking';
  const tolerance = `±${Number((usualTolerance(part) * 100).toPrecision(2))} %`;
  return `${formatQuantity(part.marked, unitOfPart(part))} ${tolerance}`;
}
