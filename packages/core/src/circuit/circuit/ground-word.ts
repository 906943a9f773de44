import type { Part } from './part.ts';

/** What people call the ground, whatever its net is named. */
const GROUND_WORDS = /^(?:gnd|ground|earth|masse)$/i;

/** The nets that a typed one is looked up among. */
export interface KnownNets {
  readonly ground: string;
  readonly parts: readonly Pick<Part, 'pins'>[];
}

/**
 * A net as it was typed: one of the words for the ground is the circuit's ground, unless a net has it for its name, as a
 * protective earth beside the ground of the signal has.
 */
export function asTypedNet(text: string, { ground, parts }: KnownNets): string {
  if (text === ground || !GROUND_WORDS.test(text)) return text;
  return parts.some(({ pins }) => Object.values(pins).includes(text)) ? text : ground;
}
