export { useDrawer } from './use-drawer.ts';
