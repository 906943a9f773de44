export {
  applyChange,
  applyStep,
  takeBack,
  unmeasuredPart,
  type ChangedCircuit,
  type ChangeOutcome,
  type Inverse,
  type StepOutcome,
} from './apply.ts';
export {
  activeSet,
  buildLayer,
  changesOn,
  circuitAt,
  distinctLayers,
  onDistinctLayers,
  plainCircuit,
  plannedForChange,
  resolveLayer,
  type BuiltLayer,
  type LayerOptions,
  type MadeChange,
} from './layer.ts';
export { FreeNames } from './free-names.ts';
export { isLegOut, namesIn, placesOf } from './places.ts';
export { ledgerOf, reportChanges, type ChangeReport, type LedgerEntry } from './ledger.ts';
export { withActiveSet, withControls } from './position.ts';
export { fitChange, plannedParts, withPlanned } from './planned-values.ts';
export { readPin } from './pin.ts';
export { partPutIn } from './put-in.ts';
export { channelTwins, twinSteps, type ChannelTwins } from './twins.ts';
export { drawnCircuit, printedParts, seenParts, type Fate, type SeenPart } from './view.ts';
export { changeSentence, changeWords, stepWords, undoSentences } from './words.ts';
