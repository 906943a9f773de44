export { IntakeStage } from './intake-stage.tsx';
