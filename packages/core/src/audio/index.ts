export { harmonics, totalHarmonicDistortion } from './harmonics.ts';
export {
  crossingsOf,
  oscillationOf,
  riseTimeOf,
  settlingTimeOf,
  type Oscillation,
  type Trace,
} from './waveform.ts';
export { weightingAt, WEIGHTINGS, type Weighting } from './weighting.ts';
