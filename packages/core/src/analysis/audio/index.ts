export { harmonics, totalHarmonicDistortion } from './harmonics.ts';
export { crossingsOf, extremesOf, peakOf, oscillationOf, type Oscillation, type Trace } from './waveform.ts';
export { weightingAt, WEIGHTINGS, type Weighting } from './weighting.ts';
