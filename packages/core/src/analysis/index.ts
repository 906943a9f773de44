export { acResponse, type AcResponse } from './ac.ts';
export { BenchModel, nearestSignal, NoOperatingPoint } from './bench-model.ts';
export { describe, operatingPoint, type NetsAndParts, type OperatingPoint } from './operating-point.ts';
export { divide, logSpaced, magnitude, SmallSignal, type Phasor } from './small-signal.ts';
export { System, type Unknown } from './system.ts';
