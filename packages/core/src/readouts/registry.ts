import type { ReadoutKind } from '@halfsplit/contract';
import { corner } from './corner.ts';
import { current, dissipation, voltage } from './direct.ts';
import { gain } from './gain.ts';
import { inputImpedance, outputImpedance } from './impedance.ts';
import type { ReadoutType } from './readout-type.ts';
import { curveError } from './replay-curve.ts';

/** The readouts that can be computed. A new one is its file and a line here. */
export const READOUTS: Partial<Record<ReadoutKind, ReadoutType>> = {
  gain,
  corner,
  voltage,
  current,
  dissipation,
  inputImpedance,
  outputImpedance,
  curveError,
};
