import { CircuitPanel } from '../circuit/index.ts';
import { PartsSheet } from './parts-sheet.tsx';

/** Typing the circuit at the left, its drawing at the right. */
export function TraceStage() {
  return (
    <div className="hs-split">
      <PartsSheet />
      <CircuitPanel />
    </div>
  );
}
