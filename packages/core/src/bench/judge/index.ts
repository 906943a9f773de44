export { assumptionsOf, checkUnit } from './check-unit.ts';
export { changeWarnings, typedWarnings, warningsOn } from './change-warnings.ts';
export { checkRatings } from './ratings.ts';
export { bearingsOf, stressesOf, type Bearing, type Stress } from './stress.ts';
export { expectedAlone, expectedInCircuit, type ExpectedReading } from './expected-reading.ts';
export { foundParams, foundValue } from './found-value.ts';
export { judgeFound, readingsOfFound } from './judge-found.ts';
export { healthOf, type Health, type ReadoutState } from './health.ts';
export {
  judgeReading,
  severity,
  type JudgedReading,
  type Asked,
  type Verdict,
  type VerdictKind,
} from './verdict.ts';
export {
  judgeInCircuit,
  meterModeOf,
  ownValueFrom,
  type InCircuitVerdict,
  type OwnValue,
} from './in-circuit.ts';
export {
  judgePart,
  judgePlainly,
  plainVerdict,
  withEsr,
  type PlainJudgement,
  type PlainReading,
  type PlainVerdict,
} from './judge-part.ts';
export { weighDrifts, type Drift, type Replacement, type Weighed, type Weighing } from './harm.ts';
export { ageingWords, technologyOf } from './ageing.ts';
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
export { judgeEsr, judgeOffset, judgeVoiceCoil, type SmallVerdict } from './small-verdicts.ts';
