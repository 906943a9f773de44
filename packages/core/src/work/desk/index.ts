import type { Calculation } from './calculation.ts';
import { chipGain, decibels, levels, scopeGain } from './levels.ts';
import {
  divider,
  lcCorner,
  madeCapacitor,
  madeResistor,
  rcCorner,
  twoCapacitors,
  twoResistors,
} from './networks.ts';
export { ratedFor } from './power.ts';
import { capacitorCode, colourBands, heatSink, led, windings } from './power.ts';
import { astable555, bank, delay555, discharge, runTime } from './timing.ts';

export {
  followed,
  usualValues,
  withField,
  type Calculation,
  type DeskAnswer,
  type DeskValues,
  type Following,
  type Given,
} from './calculation.ts';

/** Everything the Desk can calculate, in the order of the page. */
export const CALCULATIONS: readonly Calculation[] = [
  divider,
  rcCorner,
  lcCorner,
  twoResistors,
  twoCapacitors,
  madeResistor,
  madeCapacitor,
  levels,
  decibels,
  chipGain,
  scopeGain,
  astable555,
  delay555,
  led,
  heatSink,
  runTime,
  bank,
  discharge,
  windings,
  capacitorCode,
  colourBands,
];
