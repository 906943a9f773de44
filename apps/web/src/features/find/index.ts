export { FindStage } from './find-stage.tsx';
