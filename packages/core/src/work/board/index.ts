export {
  checkBoard,
  holeWords,
  type AirLine,
  type BoardCode,
  type BoardProblem,
  type BoardReport,
} from './check.ts';
export { belongsOnBoard, readPlaces, wiredRefs, type PlacedBody, type PlacedPin } from './placed.ts';
export { proposeBoard, type BoardProposal, type BoardWish } from './propose/propose.ts';
export {
  blankBoard,
  cleared,
  movedPlace,
  otherWay,
  placeFor,
  placeOf,
  withCut,
  withLink,
  withoutPlace,
  withPlace,
  withTerminal,
} from './edit.ts';
