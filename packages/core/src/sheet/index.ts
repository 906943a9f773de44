export { formatSheetLine, parseSheetLine, type SheetLineResult } from './sheet-line.ts';
export { entryHeads, parseEntry, type Entry, type EntryResult } from './entry-line.ts';
