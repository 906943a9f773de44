export { BuildStage } from './build-stage.tsx';
export { BoardPrint } from './board-print.tsx';
export { PanelPrint } from './panel-print.tsx';
