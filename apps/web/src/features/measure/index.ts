export { MeasureStage } from './measure-stage.tsx';
