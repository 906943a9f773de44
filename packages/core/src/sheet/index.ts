export { besideLine, formatSheetLine, parseSheetLine, type SheetLineResult } from './sheet-line.ts';
export {
  entryHeads,
  parseEntry,
  voltageWords,
  type Entry,
  type EntryResult,
  type VoltageUnit,
} from './entry-line.ts';
