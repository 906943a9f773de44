export { foundValue } from './found-value.ts';
export {
  judgeReading,
  severity,
  usualTolerance,
  type JudgedReading,
  type Verdict,
  type VerdictKind,
} from './verdict.ts';
export {
  METER_MODES,
  meterReading,
  Probe,
  type MeterAnswer,
  type MeterMode,
  type MeterOptions,
} from './instrument.ts';
