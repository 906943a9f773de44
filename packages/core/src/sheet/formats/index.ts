export {
  LARGEST_UNIT_FILE,
  readUnitFile,
  unitDocumentFrom,
  writeUnitFile,
  type UnitFileResult,
} from './unit-file.ts';
export { readChanges } from './read-change.ts';
export { readModel, readPart, readReadout, type UnreadPart } from './read-fields.ts';
export { formatWant, parseWant } from './want-text.ts';
