export {
  onDistinctLayers,
  evaluateAll,
  evaluateReadout,
  outsideBy,
  readoutTable,
  unitOf,
  wantedRange,
  type ReadoutRow,
} from './evaluate.ts';
export type { ReadoutAnswer, ReadoutType } from './readout-type.ts';
export { READOUTS } from './registry.ts';
export { CURVES } from './replay-curve.ts';
export { semitones } from './range.ts';
export { readoutRuns, readoutSlopes, summariseReadout } from './spread.ts';
