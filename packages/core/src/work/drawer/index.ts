export { readDrawerCsv, writeDrawerCsv, DRAWER_COLUMNS, type DrawerCsv } from './drawer-csv.ts';
export { needsOf, partsPutIn, supplyFor, takenOut, type Need, type Supply } from './needs.ts';
export { makeUp, type MadeUp } from './make-up.ts';
export { pickFor, pickWords, type Picked } from './pick.ts';
export { partsList, type PartsListLine } from './parts-list.ts';
export { substitutesFor } from './substitutes.ts';
export { parseStockLine, type StockLine } from './stock-line.ts';
export {
  fits,
  isSameSort,
  matching,
  sameValue,
  searchDrawer,
  stockText,
  wantedFor,
  type Drawer,
  type Wanted,
} from './stock.ts';
