export { checkWiring, type WiringCode, type WiringProblem, type WiringReport } from './check.ts';
export { WIRE_COLOURS } from './colours.ts';
export { keyOfEnd, netOfWire, readEnd, writeEnd, readWires, type ReadWire, type WireEnd } from './ends.ts';
export { contactsOf, lugsOf, type ContactPosition, type Lug } from './lugs.ts';
export { nextColour } from './next-colour.ts';
export { mountedParts } from './off-board.ts';
export { positionTable, type PositionRow } from './positions.ts';
export { rewiredEnds, type RewiredEnd } from './rewired.ts';
export { parseWireLine } from './wire-line.ts';
