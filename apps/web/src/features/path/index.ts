export { PathBoard } from './path-board.tsx';
export { usePath, usePointNames } from './use-path.ts';
