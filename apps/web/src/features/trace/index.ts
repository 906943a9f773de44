export { TraceStage } from './trace-stage.tsx';
