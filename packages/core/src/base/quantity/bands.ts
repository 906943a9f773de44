import { scaled } from './prefix.ts';

/** Colour code of IEC 60062: digit, multiplier exponent, tolerance (fraction), temperature coefficient (ppm/K). */
export const BAND_COLOURS = [
  'black',
  'brown',
  'red',
  'orange',
  'yellow',
  'green',
  'blue',
  'violet',
  'grey',
  'white',
  'gold',
  'silver',
  'pink',
] as const;
export type BandColour = (typeof BAND_COLOURS)[number];

const MULTIPLIER: Partial<Record<BandColour, number>> = { gold: -1, silver: -2, pink: -3 };
const TOLERANCE: Partial<Record<BandColour, number>> = {
  brown: 0.01,
  red: 0.02,
  orange: 0.0005,
  yellow: 0.0002,
  green: 0.005,
  blue: 0.0025,
  violet: 0.001,
  grey: 0.0001,
  gold: 0.05,
  silver: 0.1,
};
const TEMPERATURE: Partial<Record<BandColour, number>> = {
  black: 250,
  brown: 100,
  red: 50,
  orange: 15,
  yellow: 25,
  green: 20,
  blue: 10,
  violet: 5,
  grey: 1,
};

const SPELLINGS: Record<string, BandColour> = {
  bk: 'black', blk: 'black', bn: 'brown', brn: 'brown', rd: 'red', or: 'orange', org: 'orange', ye: 'yellow', yel: 'yellow',
  ylw: 'yellow', gn: 'green', grn: 'green', bu: 'blue', blu: 'blue', vi: 'violet', vio: 'violet', purple: 'violet',
  gy: 'grey', gry: 'grey', gray: 'grey', wh: 'white', wht: 'white', go: 'gold', gld: 'gold', si: 'silver', slv: 'silver',
  sil: 'silver', pk: 'pink',
}; // prettier-ignore

/** A colour as typed (full name or the usual short forms), or undefined. */
export function bandColour(text: string): BandColour | undefined {
  const word = text.toLowerCase();
  return (BAND_COLOURS as readonly string[]).includes(word) ? (word as BandColour) : SPELLINGS[word];
}

const digitOf = (colour: BandColour): number | undefined => {
  const index = BAND_COLOURS.indexOf(colour);
  return index < 10 ? index : undefined;
};
const multiplierOf = (colour: BandColour): number | undefined => MULTIPLIER[colour] ?? digitOf(colour);

export interface BandReading {
  readonly ohms: number;
  /** Fraction; three bands mean 0.2. */
  readonly tolerance: number;
  readonly ppmPerK?: number;
}

/**
 * Reads 3 to 6 bands from left to right (IEC 60062). Three bands: two digits and a multiplier, 20 %. Four: with
 * tolerance. Five: three digits, multiplier, tolerance. Six: and a temperature coefficient. Undefined when the
 * bands cannot be read in this direction, or give zero ohm.
 */
export function readBands(bands: readonly BandColour[]): BandReading | undefined {
  const digitCount = bands.length <= 4 ? 2 : 3;
  if (bands.length < 3 || bands.length > 6) return undefined;
  const digits = bands.slice(0, digitCount).map(digitOf);
  const exponent = multiplierOf(bands[digitCount]!);
  if (digits.some((d) => d === undefined) || exponent === undefined) return undefined;
  const ohms = scaled(digits.join(''), exponent);
  const tolerance = bands.length === 3 ? 0.2 : TOLERANCE[bands[digitCount + 1]!];
  if (ohms === 0 || tolerance === undefined) return undefined;
  if (bands.length < 6) return { ohms, tolerance };
  const ppmPerK = TEMPERATURE[bands[5]!];
  return ppmPerK === undefined ? undefined : { ohms, tolerance, ppmPerK };
}

/** Both ways round: the reading as given first, then from the other end, where each is possible. */
export function readBandsEitherWay(bands: readonly BandColour[]): BandReading[] {
  return [readBands(bands), readBands([...bands].reverse())].filter((r) => r !== undefined);
}

/**
 * The bands of a resistor: four for values of two digits at 5 % and wider, otherwise five. Undefined when the value
 * has more digits than bands can say, or the tolerance has no colour.
 */
export function bandsFor(ohms: number, tolerance = 0.05): BandColour[] | undefined {
  if (!(ohms > 0)) return undefined;
  const toleranceColour = (Object.keys(TOLERANCE) as BandColour[]).find((c) => TOLERANCE[c] === tolerance);
  const withoutToleranceBand = tolerance === 0.2;
  if (!toleranceColour && !withoutToleranceBand) return undefined;
  const digitCount = tolerance >= 0.05 && Number(ohms.toPrecision(2)) === ohms ? 2 : 3;
  if (withoutToleranceBand && digitCount === 3) return undefined;
  if (Number(ohms.toPrecision(digitCount)) !== ohms) return undefined;
  const exponent = Math.floor(Math.log10(ohms) + 1e-12) - (digitCount - 1);
  const digits = String(Math.round(scaled(String(ohms), -exponent))).padStart(digitCount, '0');
  const multiplier = BAND_COLOURS.find((c) => multiplierOf(c) === exponent);
  if (!multiplier || digits.length !== digitCount) return undefined;
  const bands = [...digits].map((d) => BAND_COLOURS[Number(d)]!);
  return toleranceColour ? [...bands, multiplier, toleranceColour] : [...bands, multiplier];
}
