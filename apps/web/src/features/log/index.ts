export { LogStage } from './log-stage.tsx';
