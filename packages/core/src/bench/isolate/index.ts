export { BLOCK_KINDS, blockKind, type BlockKind } from './block-kinds.ts';
export { drill, groupsOf, type DrillAnswer, type DrilledFault, type DrillOptions } from './drill.ts';
export {
  CONDITIONS,
  contradictions,
  evidenceSentence,
  readEvidence,
  type Contradiction,
  type EvidenceOptions,
  type Ignored,
  type Observation,
} from './evidence.ts';
export {
  forbiddenBy,
  rankTests,
  rateTest,
  SCHOOLS,
  testsOf,
  testsToCome,
  whyTest,
  type ForbiddenTest,
  type LiveLimits,
  type RatedTest,
  type School,
  type Test,
} from './next-test.ts';
export { checkPath, Path, preparePath, type Block, type Link, type TestPoint } from './path.ts';
export {
  entropyOf,
  PAIR_SHARE,
  posteriorOf,
  whySuspect,
  type InferenceOptions,
  type PairSuspect,
  type Posterior,
} from './suspects.ts';
export {
  FAULT_MODES,
  SYMPTOMS,
  USUAL_TRUST,
  type FaultMode,
  type Seen,
  type Symptom,
  type Trust,
} from './symptom.ts';
export {
  causeOf,
  convictDamage,
  damageWords,
  intakeSentences,
  withCheck,
  withDamage,
  withoutDamage,
  withProof,
  type Conviction,
  type ProofOutcome,
} from './cause.ts';
export { firstChecks, FIRST_CHECKS, type FirstCheck } from './first-checks.ts';
export {
  searchState,
  type ProposedTest,
  type SearchOptions,
  type SearchState,
  type Suspect,
} from './search.ts';
export { weightsFor } from './weights.ts';
export { cautionsOf } from './hazards.ts';
export {
  dischargeOf,
  energyOf,
  HARMLESS_J,
  likelyStored,
  SAFE_V,
  storedAt,
  WORKING_V,
  type Discharge,
  type Stored,
} from './stored.ts';
export { proposePath } from './propose-path.ts';
export { PATH_TEMPLATES, pathFromText, templatesFor, type PathTemplate } from './templates.ts';
export {
  faultDictionary,
  HARDLY_TELLS,
  searchParts,
  tellingReadings,
  voltageQuantities,
  type DictionaryEntry,
  type NextMeasurement,
  type Measured,
  type PartGroup,
  type PartSearch,
  type PartSuspect,
} from './dictionary.ts';
export {
  isReadAlike,
  measuredInEvidence,
  measuringMinutes,
  searchQuantities,
  type LeftOut,
} from './measured.ts';
export type { Prediction, Quantity } from './prediction.ts';
export { faultsOfPart, type PartFault } from './part-faults.ts';
export { addPathLine, withoutBlock, withoutLink, type PathLineResult } from './path-line.ts';
export { toneHzOf } from './expected.ts';
export { faultSound } from './fault-sounds.ts';
export { fuseOut, temporaryFor, type Temporary } from './temporary.ts';
