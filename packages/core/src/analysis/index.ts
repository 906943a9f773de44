export { acCurrent, acResponse, type AcResponse } from './ac.ts';
export { BenchModel, nearestSignal, NoOperatingPoint } from './bench-model.ts';
export { noiseAt, type NoiseAnswer, type NoiseOptions } from './noise.ts';
export { describe, operatingPoint, type NetsAndParts, type OperatingPoint } from './operating-point.ts';
export { naturalFrequencies, type Pole, type Poles } from './poles.ts';
export { divide, logSpaced, magnitude, SmallSignal, type Phasor } from './small-signal.ts';
export { AdjointSlopes, differenceSlopes, type TurnedPart } from './sensitivity.ts';
export { System, type Unknown } from './system.ts';
export {
  contributionsOf,
  seededRandom,
  spreadParts,
  summariseRuns,
  toleranceOf,
  toleranceRuns,
  worstCase,
  type Random,
  type SpreadPart,
  type ToleranceAnswer,
  type ToleranceOptions,
} from './tolerance.ts';
export { transient, type TransientOptions, type TransientOutcome } from './transient.ts';
