export { NOTHING_DB } from './nothing.ts';
export type { Readout, ReadoutOf, Want } from '@zemble/contract';
export { checkReadouts } from './check-readouts.ts';
export { clockFault, clockOhm } from './clock-rate.ts';
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
export { semitones, type Ends } from './range.ts';
export { rangesBySetting, type RangeInSetting, type RangesBySetting } from './ranges-by-setting.ts';
export type { ReadoutAnswer } from './readout-type.ts';
export { describeReadout, transferEnds } from './registry.ts';
export { CURVES } from './replay-curve.ts';
export { readoutRuns, readoutSlopes, summariseReadout } from './spread.ts';
export { outsideBy, wantedRange } from './want.ts';
export { plainDocument } from './plain-document.ts';
