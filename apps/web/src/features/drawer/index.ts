export { DrawerPage } from './drawer-page.tsx';
export { useDrawer } from './use-drawer.ts';
