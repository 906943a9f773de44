export { PhotosPanel } from './photos-panel.tsx';
