import type { BeepData } from '@zemble/contract';
import type { Part } from '../circuit/index.ts';

/** What is traced by continuity: parts with the nets that were said of them, and what beeped with what. */
export interface Traceable {
  readonly ground: string;
  readonly parts: readonly Part[];
  /** In the order in which they were found. */
  readonly beeps?: readonly BeepData[] | undefined;
}

/** An end of a beep: a pin of a part, or a net by its name. */
export type End =
  | { readonly of: 'pin'; readonly ref: string; readonly pin: string }
  | { readonly of: 'net'; readonly net: string };

/** The text of a pin as beeps keep it. */
export const pinText = (ref: string, pin: string): string => `${ref}.${pin}`;

/** The pins of a circuit's parts by their text. */
export function pinsByText(parts: readonly Part[]): ReadonlyMap<string, { ref: string; pin: string }> {
  return new Map(
    parts.flatMap(({ ref, pins }) =>
      Object.keys(pins).map((pin) => [pinText(ref, pin), { ref, pin }] as const),
    ),
  );
}

/** The end that a text stands for; undefined for a pin of a part that is not there. */
export function endOf(
  pins: ReadonlyMap<string, { readonly ref: string; readonly pin: string }>,
  text: string,
): End | undefined {
  const pin = pins.get(text);
  if (pin) return { of: 'pin', ...pin };
  return text.includes('.') ? undefined : { of: 'net', net: text };
}

/** The net of a pin that nothing is known of yet, "R7a". */
export const ownNet = (ref: string, pin: string): string => `${ref}${pin}`;
