export { parsePanelLine, type PanelLine } from './control-line.ts';
export {
  boardOrigin,
  checkFit,
  controlShape,
  freePlaces,
  holeShape,
  standingUnder,
  type FitCode,
  type FitProblem,
} from './fit.ts';
