export { applyEdit, applyEdits } from './apply-edit.ts';
export { DocumentMaker, documentFromResource, partsInPlace, type PartInPlace } from './unit-resource.ts';
export {
  READING_COLUMNS,
  readReadingsCsv,
  writeReadingsCsv,
  type ReadingRow,
  type ReadingsCsv,
} from './readings-csv.ts';
export { withClaimedNames, withTracedNets } from './traced.ts';
