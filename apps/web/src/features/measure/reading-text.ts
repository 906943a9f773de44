import { KINDS, parseValue, type Part } from '@halfsplit/core';

export type ReadingText =
  | { readonly ok: true; readonly value: number | 'open' | 'short' }
  | { readonly ok: false; readonly sentence: string };

/** What an instrument prints when nothing conducts. */
const OPEN_WORDS = new Set(['open', 'ol', 'o.l', 'over', 'inf']);
const SHORT_WORDS = new Set(['short', 'shorted']);

/** Reads what was typed as a reading of a part: "62k", "3.1u", "open", "OL", "short". */
export function readReading(text: string, part: Part): ReadingText {
  const word = text.trim().toLowerCase();
  if (OPEN_WORDS.has(word)) return { ok: true, value: 'open' };
  if (SHORT_WORDS.has(word)) return { ok: true, value: 'short' };
  const expected = typeof part.marked === 'number' ? part.marked : undefined;
  const parsed = parseValue(text, {
    kind: KINDS[part.kind].value ?? 'number',
    purpose: 'reading',
    ...(expected === undefined ? {} : { expected }),
  });
  if (!parsed.ok) return { ok: false, sentence: parsed.problem.message };
  const { value } = parsed.readings[0];
  if (!(value >= 0)) return { ok: false, sentence: 'A reading of a part is not below zero.' };
  return value === 0 ? { ok: true, value: 'short' } : { ok: true, value };
}
