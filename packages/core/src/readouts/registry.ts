import type { ReadoutKind } from '@halfsplit/contract';
import { corner } from './corner.ts';
import { current, dissipation, voltage } from './direct.ts';
import { headroom, thd } from './distortion.ts';
import { gain } from './gain.ts';
import { inputImpedance, outputImpedance } from './impedance.ts';
import { delay, period, rate, thump } from './in-time.ts';
import { ripple, separation } from './leakage.ts';
import { noise } from './noise-level.ts';
import { range } from './range.ts';
import { stability } from './stability.ts';
import type { ReadoutType } from './readout-type.ts';
import { curveError } from './replay-curve.ts';

/** The readouts that can be computed. A new one is its file and a line here. */
export const READOUTS: Readonly<Record<ReadoutKind, ReadoutType>> = {
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
  rate,
  period,
  delay,
  separation,
  thump,
  ripple,
  range,
  stability,
};
