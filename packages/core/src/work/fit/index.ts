export { parsePanelLine, type PanelLine } from './control-line.ts';
export { checkFit, freePlaces, standingUnder, type FitCode, type FitProblem } from './fit.ts';
