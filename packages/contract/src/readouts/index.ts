import {
  current,
  dissipation,
  junctionTemperature,
  lifetime,
  runTime,
  supplyPower,
  voltage,
} from './at-rest.ts';
import { headroom, outputPower, thd } from './driven.ts';
import { delay, overlap, period, range, rate, thump } from './in-time.ts';
import type { ReadoutDefinition } from './readout-definition.ts';
import {
  corner,
  curveError,
  gain,
  inputImpedance,
  noise,
  outputImpedance,
  ripple,
  separation,
  stability,
} from './transfers.ts';

/** Every kind of readout by its name in a file. A new one is its definition and a line here. */
export const READOUT_DEFINITIONS = {
  gain,
  corner,
  voltage,
  current,
  dissipation,
  inputImpedance,
  outputImpedance,
  curveError,
  noise,
  thd,
  headroom,
  outputPower,
  rate,
  period,
  delay,
  separation,
  thump,
  ripple,
  range,
  overlap,
  stability,
  junctionTemperature,
  supplyPower,
  runTime,
  lifetime,
} as const satisfies Record<string, ReadoutDefinition>;

export type ReadoutKind = keyof typeof READOUT_DEFINITIONS;
export const READOUT_KINDS = Object.keys(READOUT_DEFINITIONS) as [ReadoutKind, ...ReadoutKind[]];

/** The definition of a kind, as what all of them have in common. */
export const readoutDefinitionOf = (kind: ReadoutKind): ReadoutDefinition => READOUT_DEFINITIONS[kind];
export type { ReadoutDefinition } from './readout-definition.ts';
