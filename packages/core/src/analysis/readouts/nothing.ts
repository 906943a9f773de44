import { ratioToDb } from '../../base/quantity/index.ts';

/**
 * Below this no signal arrives, dB: it is rounding, and less than any insulation lets through (common practice: 120 dB is a
 * good cable). A level is no lower, and two that are farther apart are as far apart as this.
 */
export const NOTHING_DB = 160;

/** A voltage ratio in dB, no lower than what is nothing. */
export const levelDb = (ratio: number): number =>
  ratio === 0 ? -NOTHING_DB : Math.max(-NOTHING_DB, ratioToDb(ratio));
