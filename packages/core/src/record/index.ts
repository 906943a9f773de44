export { applyEdit, applyEdits } from './apply-edit.ts';
export { DocumentMaker, documentFromResource, readingsByPart, readingsOf } from './unit-resource.ts';
export {
  READING_COLUMNS,
  readReadingsCsv,
  writeReadingsCsv,
  type ReadingRow,
  type ReadingsCsv,
} from './readings-csv.ts';
