export { CircuitPanel } from './circuit-panel.tsx';
