export { formatSheetLine, parseSheetLine, type SheetLineResult } from './sheet-line.ts';
