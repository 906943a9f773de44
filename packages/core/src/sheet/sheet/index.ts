export { formatBeepLine, parseTraceLine, type TraceLineResult } from './beep-line.ts';
export { parseChangeLine, type ChangeLineResult } from './change-line.ts';
export { changeOffers, type ChangeOffer } from './change-offers.ts';
export { besideLine, formatSheetLine } from './format-line.ts';
export { partWords } from './part-words.ts';
export type { SheetLineResult } from './line-reader.ts';
export { parseSheetLine } from './sheet-line.ts';
export { parseSheetLines, type RefusedLine } from './sheet-lines.ts';
export {
  entryHeads,
  parseEntry,
  voltageWords,
  type Entry,
  type EntryResult,
  type VoltageUnit,
} from './entry-line.ts';
