export { PathBoard } from './path-board.tsx';
export { PhotosPanel } from './photos-panel.tsx';
export { usePath, usePointNames } from './use-path.ts';
