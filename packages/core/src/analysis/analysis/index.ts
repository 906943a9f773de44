export { acCurrent, acResponse, type AcResponse } from './ac.ts';
export { noiseAt, type NoiseAnswer, type NoiseOptions } from './noise.ts';
export { describe, type NetsAndParts, type OperatingPoint } from './operating-point.ts';
export { periodicSteadyState, type PeriodicOptions, type PeriodicOutcome } from './periodic.ts';
export { naturalFrequencies, type Pole, type Poles } from './poles.ts';
export { divide, logSpaced, magnitude, SmallSignal, type Phasor } from './small-signal.ts';
export { AdjointSlopes, differenceSlopes, type Reading, type TurnedPart } from './sensitivity.ts';
export { AnalysisSession, type Variant } from './session.ts';
export { System, type SystemUnknown } from './system.ts';
export { spreadParts, type SpreadPart } from './spread-part.ts';
export {
  contributionsOf,
  extremeRuns,
  summariseRuns,
  toleranceRuns,
  type Contribution,
  type ToleranceAnswer,
  type ToleranceOptions,
  type ToleranceRuns,
} from './tolerance.ts';
export { worstCase, type WorstCaseOptions } from './worst-case.ts';
export { nearestSignal, transfer, transferInput, transferOver, type TransferInput } from './transfer.ts';
export { transient, type TransientOptions, type TransientOutcome } from './transient.ts';
