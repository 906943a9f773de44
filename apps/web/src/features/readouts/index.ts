export { ReadoutsDock } from './readouts-dock.tsx';
