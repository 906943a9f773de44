const WORDS = {
  open: ['open', 'ol', 'o.l', 'o.l.', 'overload', 'over range', 'inf'],
  short: ['short', 'shorted', 'shorts'],
} as const;

/**
 * What a meter shows that is no number, as people type it: nothing that it could put into one, or no resistance at all. Null
 * for anything else, a number among it.
 *
 * @example meterWord('OL') // 'open'
 */
export function meterWord(text: string): 'open' | 'short' | null {
  const word = text.trim().toLowerCase();
  for (const [state, words] of Object.entries(WORDS))
    if ((words as readonly string[]).includes(word)) return state as keyof typeof WORDS;
  return null;
}
