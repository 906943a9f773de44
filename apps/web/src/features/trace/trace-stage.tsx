import { useState } from 'react';
import { OneOf } from '../../ui/one-of.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { CircuitPanel } from '../circuit/index.ts';
import { PathBoard } from '../path/index.ts';
import { PhotosPanel } from '../photos/index.ts';
import { BeepsSheet } from './beeps-sheet.tsx';
import { PartsSheet } from './parts-sheet.tsx';
import { PathSheet } from './path-sheet.tsx';

const VIEWS = ['Parts', 'Beeps', 'Path'] as const;
type View = (typeof VIEWS)[number];
const BOARDS = ['Drawing', 'Photos'] as const;
type Board = (typeof BOARDS)[number];

/** Typing the circuit, what beeps or the path at the left; at the right its drawing, or the photos of its boards. */
export function TraceStage() {
  const { document } = useUnitContext();
  const [view, setView] = useState<View>(
    document.circuit.parts.length === 0 && (document.path?.blocks.length ?? 0) > 0 ? 'Path' : 'Parts',
  );
  const [board, setBoard] = useState<Board>('Drawing');
  const tabs = <OneOf label="What is traced" options={VIEWS} value={view} onChange={setView} />;
  const switcher = (
    <OneOf label="What is seen beside it" options={BOARDS} value={board} onChange={setBoard} />
  );
  return (
    <div className="zb-split">
      {view === 'Parts' && <PartsSheet tabs={tabs} />}
      {view === 'Beeps' && <BeepsSheet tabs={tabs} />}
      {view === 'Path' && <PathSheet tabs={tabs} />}
      {board === 'Photos' ? (
        <PhotosPanel switcher={switcher} />
      ) : view === 'Path' ? (
        <PathBoard switcher={switcher} />
      ) : (
        <CircuitPanel switcher={switcher} />
      )}
    </div>
  );
}
