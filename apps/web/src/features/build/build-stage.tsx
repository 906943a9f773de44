import type { Hole } from '@zemble/contract';
import { useState, type ReactNode } from 'react';
import { useSearchParams } from 'react-router';
import { OneOf } from '../../ui/one-of.tsx';
import { CircuitPanel } from '../circuit/index.ts';
import { PhotosPanel } from '../photos/index.ts';
import { BoardPanel } from './board-panel.tsx';
import { BoardSheet } from './board-sheet.tsx';
import { FitView } from './fit-view.tsx';
import { KitView } from './kit-view.tsx';
import { StepsSheet } from './steps-sheet.tsx';
import { WiringView } from './wiring-view.tsx';
import { useBoards } from './use-boards.ts';

const VIEWS = ['Steps', 'Board', 'Wiring', 'Parts', 'Fit'] as const;
type View = (typeof VIEWS)[number];
const SIDES = ['Drawing', 'Photos', 'Layout'] as const;
type Side = (typeof SIDES)[number];

/** Between a plan and a working unit: steps, boards, wires, parts, and whether it fits. */
export function BuildStage() {
  const [params, setParams] = useSearchParams();
  const view = VIEWS.find((v) => v.toLowerCase() === params.get('view')) ?? 'Steps';
  const setView = (next: View) =>
    setParams(next === 'Steps' ? {} : { view: next.toLowerCase() }, { replace: true });
  const tabs = <OneOf label="What is built" options={VIEWS} value={view} onChange={setView} />;
  switch (view) {
    case 'Steps':
      return <Steps tabs={tabs} />;
    case 'Board':
      return <Boarding tabs={tabs} />;
    case 'Wiring':
      return <WiringView tabs={tabs} />;
    case 'Parts':
      return <KitView tabs={tabs} />;
    case 'Fit':
      return <FitView tabs={tabs} />;
  }
}

/** The steps, with the drawing, the photos or the board beside them. */
function Steps({ tabs }: { readonly tabs: ReactNode }) {
  const [side, setSide] = useState<Side>('Drawing');
  const boards = useBoards();
  const sides = boards.board ? SIDES : SIDES.filter((s) => s !== 'Layout');
  const switcher = <OneOf label="What is seen beside it" options={sides} value={side} onChange={setSide} />;
  return (
    <div className="zb-split">
      <StepsSheet tabs={tabs} />
      {side === 'Photos' && <PhotosPanel switcher={switcher} />}
      {side === 'Drawing' && <CircuitPanel switcher={switcher} hasOffers={false} />}
      {side === 'Layout' && <BoardPanel boards={boards} marked={[]} switcher={switcher} />}
    </div>
  );
}

function Boarding({ tabs }: { readonly tabs: ReactNode }) {
  const boards = useBoards();
  const [marked, setMarked] = useState<readonly Hole[]>([]);
  return (
    <div className="zb-split">
      <BoardSheet tabs={tabs} boards={boards} onMark={setMarked} />
      <BoardPanel boards={boards} marked={marked} />
    </div>
  );
}
