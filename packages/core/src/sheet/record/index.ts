export { applyAct } from './apply-act.ts';
export { applyEdit, applyEdits, withThings } from './apply-edit.ts';
export { DocumentMaker, documentFromResource, partsInPlace, type PartInPlace } from './unit-resource.ts';
export {
  READING_COLUMNS,
  readReadingsCsv,
  writeReadingsCsv,
  type ReadingRow,
  type ReadingsCsv,
} from './readings-csv.ts';
export { dropPlanActs, planActs, plannedRefs, superseding } from './plan.ts';
export {
  inverseThings,
  isSameThing,
  putThing,
  thingsBetween,
  thingsSentence,
  type PutResult,
} from './things.ts';
export { withClaimedNames, withTracedNets } from './traced.ts';
