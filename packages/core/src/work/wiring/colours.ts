import { BAND_COLOURS } from '../../base/quantity/index.ts';

type BandColour = (typeof BAND_COLOURS)[number];

/** Words for the colours of wires (IEC 60757): those of bands that insulation has, turquoise, and what has none. */
export const WIRE_COLOURS = [
  ...BAND_COLOURS.filter((c): c is Exclude<BandColour, 'gold' | 'silver'> => c !== 'gold' && c !== 'silver'),
  'turquoise',
  'bare',
  'screen',
] as const;
