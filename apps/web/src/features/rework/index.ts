export { ReworkStage } from './rework-stage.tsx';
