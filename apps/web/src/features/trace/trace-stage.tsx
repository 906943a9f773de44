import { Segmented } from 'antd';
import { useState } from 'react';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { CircuitPanel } from '../circuit/index.ts';
import { PathBoard, PhotosPanel } from '../path/index.ts';
import { BeepsSheet } from './beeps-sheet.tsx';
import { PartsSheet } from './parts-sheet.tsx';
import { PathSheet } from './path-sheet.tsx';

const VIEWS = ['Parts', 'Beeps', 'Path', 'Photos'] as const;
type View = (typeof VIEWS)[number];

/** Typing the circuit or the path at the left, its drawing at the right; the photos of its boards. */
export function TraceStage() {
  const { document } = useUnitContext();
  const [view, setView] = useState<View>(
    document.circuit.parts.length === 0 && (document.path?.blocks.length ?? 0) > 0 ? 'Path' : 'Parts',
  );
  const tabs = (
    <Segmented<View>
      size="small"
      options={[...VIEWS]}
      value={view}
      onChange={setView}
      aria-label="What is traced"
    />
  );
  return (
    <div className="hs-split">
      {view === 'Parts' && <PartsSheet tabs={tabs} />}
      {view === 'Beeps' && <BeepsSheet tabs={tabs} />}
      {(view === 'Path' || view === 'Photos') && <PathSheet tabs={tabs} />}
      {(view === 'Parts' || view === 'Beeps') && <CircuitPanel />}
      {view === 'Path' && <PathBoard />}
      {view === 'Photos' && <PhotosPanel />}
    </div>
  );
}
