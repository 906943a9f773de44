export type { Readout, ReadoutOf, Want } from '@halfsplit/contract';
export { checkReadouts } from './check-readouts.ts';
export {
  byLayer,
  evaluateAll,
  evaluateReadout,
  quantityOf,
  readoutTable,
  unitOf,
  type ReadoutRow,
  type ReadoutsAround,
} from './evaluate.ts';
export { semitones } from './range.ts';
export type { ReadoutAnswer } from './readout-type.ts';
export { describeReadout, transferEnds } from './registry.ts';
export { CURVES } from './replay-curve.ts';
export { readoutRuns, readoutSlopes, summariseReadout } from './spread.ts';
export { outsideBy, wantedRange } from './want.ts';
export { plainDocument } from './plain-document.ts';
