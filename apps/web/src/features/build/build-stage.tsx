import { Segmented } from 'antd';
import { useState } from 'react';
import { CircuitPanel } from '../circuit/index.ts';
import { PhotosPanel } from '../photos/index.ts';
import { StepsSheet } from './steps-sheet.tsx';

const VIEWS = ['Steps'] as const;
type View = (typeof VIEWS)[number];
const SIDES = ['Drawing', 'Photos'] as const;
type Side = (typeof SIDES)[number];

/** Between a plan and a working unit: steps, boards, wires, parts, and whether it fits. */
export function BuildStage() {
  const [view, setView] = useState<View>('Steps');
  const [side, setSide] = useState<Side>('Drawing');
  const tabs = (
    <Segmented<View>
      size="small"
      options={[...VIEWS]}
      value={view}
      onChange={setView}
      aria-label="What is built"
    />
  );
  const switcher = (
    <Segmented<Side>
      size="small"
      options={[...SIDES]}
      value={side}
      onChange={setSide}
      aria-label="What is seen beside it"
    />
  );
  return (
    <div className="hs-split">
      <StepsSheet tabs={tabs} />
      {side === 'Photos' ? (
        <PhotosPanel switcher={switcher} />
      ) : (
        <CircuitPanel switcher={switcher} hasOffers={false} />
      )}
    </div>
  );
}
