export {
  bandColour,
  bandsFor,
  BAND_COLOURS,
  readBands,
  readBandsEitherWay,
  type BandColour,
  type BandReading,
} from './bands.ts';
export { meterWord } from './meter-word.ts';
export { prefixFor } from './prefix.ts';
export { dbToRatio, ratioToDb } from './decibel.ts';
export {
  exactText,
  formatCode,
  formatDecibel,
  formatPlain,
  formatQuantity,
  type FormatOptions,
} from './format-value.ts';
export {
  parseValue,
  valueOf,
  type Notation,
  type ParsedValue,
  type ParseOptions,
  type ValueReading,
} from './parse-value.ts';
export { prefixExponent, scaled } from './prefix.ts';
export {
  bestPair,
  combine,
  E_SERIES,
  E_SERIES_NAMES,
  isMade,
  isPreferred,
  nearestPreferred,
  preferred,
  preferredBetween,
  seriesNamed,
  stepPreferred,
  type ESeries,
  type Pair,
  type PairKind,
  type PreferredAnswer,
} from './preferred.ts';
export { parseTolerance, TOLERANCE_LETTERS } from './tolerance-letter.ts';
export {
  kindOfUnit,
  OHM_SIGN,
  QUANTITY_KINDS,
  unitSign,
  UNITS,
  type QuantityKind,
  type Unit,
} from './unit.ts';
