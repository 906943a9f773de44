import { BAND_COLOURS } from '../../base/quantity/index.ts';

type BandColour = (typeof BAND_COLOURS)[number];

/** Words for the colours of wires (IEC 60757): those of bands that insulation has, turquoise, and what has none. */
export const WIRE_COLOURS = [
  ...BAND_COLOURS.filter((c): c is Exclude<BandColour, 'gold' | 'silver'> => c !== 'gold' && c !== 'silver'),
  'turquoise',
  'clear',
  'bare',
  'screen',
] as const;
export type WireColour = (typeof WIRE_COLOURS)[number];

/** Other words of the trade for them. */
const SYNONYMS = new Map<string, WireColour>(
  Object.entries({
    purple: 'violet',
    lilac: 'violet',
    gray: 'grey',
    transparent: 'clear',
    naked: 'bare',
    tinned: 'bare',
    shield: 'screen',
    braid: 'screen',
  }),
);

/** A colour as it is kept, of a word of the trade: `purple` is violet, `white/blue` and `white-blue` a striped wire; undefined for none. */
export function wireColour(word: string): string | undefined {
  const parts = word.toLowerCase().split(/[-/]/);
  const known = parts.map((w) => SYNONYMS.get(w) ?? WIRE_COLOURS.find((colour) => colour === w));
  return known.every((c) => c !== undefined) ? known.join('-') : undefined;
}
