export { DeskPage } from './desk-page.tsx';
