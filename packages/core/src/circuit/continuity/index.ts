export { claimedNames, withClaims, type Claim } from './claims.ts';
export {
  contradictionsOf,
  pointWords,
  throughQuestions,
  type BeepContradiction,
  type ThroughQuestion,
} from './contradictions.ts';
export { endOf, ownNet, pinsByText, pinText, type End, type Traceable } from './ends.ts';
export { netOfPoint, netPoint } from './graph.ts';
export {
  nextBeep,
  type BeepProgress,
  type BeepQuestion,
  type NextBeep,
  type NextBeepOptions,
} from './next-beep.ts';
export { withNetsOfNow } from './names-of-now.ts';
export { formNets, type TracedNet, type TracedNets } from './nets.ts';
export { beepSentence, whyBeep } from './words.ts';
export { isTraced, renamedEnds, restated, retraced, tracedNames } from './retrace.ts';
export { twinDifferences, twinsBy, twinsOf, type TwinDifference, type Twins } from './twins.ts';
export { judgePinNote, readPinNote, type PinNote, type PinNoteVerdict } from './pin-notes.ts';
