export {
  isValue,
  LARGEST_UNIT_FILE,
  normalisePart,
  PART_FIELD_QUANTITIES,
  readUnitFile,
  unitDocumentFrom,
  writeUnitFile,
  type UnitFileResult,
} from './unit-file.ts';
export { documentFromResource, readingsByPart, readingsOf } from './unit-resource.ts';
export { formatWant, parseWant } from './want-text.ts';
export {
  READING_COLUMNS,
  readReadingsCsv,
  writeReadingsCsv,
  type ReadingRow,
  type ReadingsCsv,
} from './readings-csv.ts';
