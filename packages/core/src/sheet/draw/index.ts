export type { Flag } from './flags.ts';
export type { RailMark } from './footprint.ts';
export {
  flagsFor,
  layoutCircuit,
  placementsOf,
  type Drawing,
  type DrawnSymbol,
  type LayoutOptions,
} from './layout.ts';
export { movedPlaces } from './moved.ts';
export type { Wire } from './route.ts';
export {
  blockPins,
  CHARACTER_WIDTH,
  isTwoTerminal,
  TEXT_HEIGHT,
  type BlockPins,
  type Box,
  type Label,
  type Placement,
  type Point,
  type SymbolPin,
} from './symbols.ts';
