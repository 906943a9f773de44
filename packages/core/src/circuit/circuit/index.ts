export { aroundNet } from './around.ts';
export { checkCircuit, touching } from './check.ts';
export { controlState, controlWords, isControl, withControl, type ControlState } from './control.ts';
export {
  partFields,
  readoutFields,
  resembling,
  unknownModelNames,
  unknownPartNames,
  unknownReadoutNames,
  type FieldEntry,
  type UnknownName,
} from './field-values.ts';
export { isPassive, kindOfRef, KINDS } from './kinds.ts';
export {
  isModelled,
  markedNumber,
  markedValue,
  netNamed,
  resolvePart,
  valueOnLayer,
  type LayerCircuit,
  type LayerPart,
  type LayerPartOf,
  type Value,
} from './layer.ts';
export { asTypedNet, type KnownNets } from './ground-word.ts';
export {
  isPolarised,
  netsOf,
  type BarePart,
  type Circuit,
  type LayerValue,
  type MeasuredParams,
  type ParamsOf,
  type Part,
  type PartOf,
  type Setting,
  type UnitDocument,
} from './part.ts';
export { printedText, symbolText, symbolTextRoom } from './printed-text.ts';
export {
  floatingIslands,
  floatingProblems,
  hangingNets,
  ohmicIslands,
  sourceLoops,
  type Island,
} from './topology.ts';
export { ELECTROLYTIC_F, usualTolerance } from './usual-tolerance.ts';
export { UnionFind } from './union-find.ts';
export { saidPins, untracedNets, untracedParts } from './untraced.ts';
