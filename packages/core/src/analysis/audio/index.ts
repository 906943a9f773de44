export { harmonics, totalHarmonicDistortion } from './harmonics.ts';
export { crossingsOf, oscillationOf, type Oscillation, type Trace } from './waveform.ts';
export { weightingAt, WEIGHTINGS, type Weighting } from './weighting.ts';
