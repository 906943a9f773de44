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
export { judgeInCircuit, meterModeOf, ownValueFrom, type OwnValue } from './in-circuit.ts';
export { rankDrifts, smallestReplacement, type Drift, type Replacement } from './harm.ts';
export { ageingWords, technologyOf, TECHNOLOGIES, type Technology } from './ageing.ts';
export { aspectNamed, aspectsOf, aspectText, bareAspect, judgeAspect, type Aspect } from './aspects.ts';
export {
  judgeRipple,
  judgeVoltage,
  reservoirAt,
  restingCurrents,
  supplyVerdicts,
  type RestingCurrent,
  type SupplyVerdict,
  type VoltsByNet,
} from './powered.ts';
export { batchSuspects, sistersOf } from './batch.ts';
export {
  CHANGE_KINDS,
  unknownFromChange,
  type ChangeKind,
  type KnownChange,
  type Unknown as UnknownValue,
} from './from-change.ts';
export { judgeEsr, judgeOffset, judgeVoiceCoil, type SmallVerdict } from './small-verdicts.ts';
