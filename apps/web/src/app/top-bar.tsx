import {
  ArrowLeftOutlined,
  BulbOutlined,
  CheckCircleFilled,
  ClockCircleOutlined,
  WarningOutlined,
} from '@ant-design/icons';
import { Button, Tooltip } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { useOutboxState } from '../api/outbox-context.tsx';
import type { SaveState } from '../api/outbox.ts';
import { Keys } from '../ui/keys.tsx';
import { LayerMark } from '../ui/marks.tsx';
import { LAYER_LIST, useLayer } from './layer.tsx';
import { useMode } from './mode.tsx';
import { openPalette } from './palette-state.ts';
import { ParkedDrawer } from './parked-drawer.tsx';
import { useUnitContext } from './unit-context.tsx';

export function TopBar() {
  const { unit } = useUnitContext();
  const { layer, setLayer } = useLayer();
  return (
    <header className="hs-top">
      <Link to="/" className="hs-tag" aria-label={`${unit.name}, number ${unit.number}. Back to the bench`}>
        <span className="hs-tag-hole" aria-hidden />
        <strong>{unit.name}</strong>
        <span className="hs-tag-number">#{unit.number}</span>
      </Link>
      <Link to="/" className="hs-back">
        <ArrowLeftOutlined aria-hidden /> Bench
      </Link>
      {unit.hazards.length > 0 && (
        <span className="hs-hazard">
          <WarningOutlined aria-hidden /> {unit.hazards.join(' · ')}
        </span>
      )}
      <span className="hs-grow" />
      <div className="hs-layers" role="radiogroup" aria-label="Layer shown">
        {LAYER_LIST.map((l) => (
          <button
            key={l}
            role="radio"
            aria-checked={l === layer}
            className="hs-layer"
            onClick={() => setLayer(l)}
            style={l === layer ? { borderColor: `var(--hs-${l})` } : undefined}
          >
            <LayerMark layer={l} /> {l}
          </button>
        ))}
      </div>
      <button className="hs-goto" onClick={openPalette}>
        Go to anything <Keys keys="Ctrl K" />
      </button>
      <ModeButton />
      <Saving />
    </header>
  );
}

export function ModeButton() {
  const { mode, toggle } = useMode();
  const label = mode === 'paper' ? 'Dim the bench' : 'Light paper';
  return (
    <Tooltip title={label}>
      <Button type="text" aria-label={label} icon={<BulbOutlined />} onClick={toggle} />
    </Tooltip>
  );
}

const STATES: Record<SaveState, { word: string; tone: string; hint: string }> = {
  saved: { word: 'saved', tone: 'in', hint: 'Everything you entered is on the server.' },
  saving: { word: 'saving', tone: 'dim', hint: 'On its way to the server.' },
  waiting: {
    word: 'kept here',
    tone: 'edge',
    hint: 'The server cannot be reached. What you enter is kept here and sent as soon as it is back.',
  },
  parked: {
    word: 'not taken',
    tone: 'out',
    hint: 'The server would not take something that you entered. Look at what it was, and why.',
  },
  conflict: { word: 'your choice', tone: 'out', hint: 'Something was changed elsewhere.' },
};

export function Saving() {
  const { state, pending, parked, notKept } = useOutboxState();
  const [isOpen, setIsOpen] = useState(false);
  const { word, tone, hint } = STATES[state];
  return (
    <>
      {notKept !== null && (
        <Tooltip title={notKept}>
          <span className="hs-not-kept" role="alert">
            <WarningOutlined aria-hidden /> not kept here
          </span>
        </Tooltip>
      )}
      <Tooltip title={hint}>
        <span className="hs-saving" role="status" data-state={state} style={{ color: `var(--hs-${tone})` }}>
          {state === 'saved' ? <CheckCircleFilled aria-hidden /> : <ClockCircleOutlined aria-hidden />} {word}
          {state === 'waiting' && ` (${pending.length})`}
        </span>
      </Tooltip>
      {parked.length > 0 && (
        <Button size="small" danger onClick={() => setIsOpen(true)}>
          {parked.length} refused
        </Button>
      )}
      <ParkedDrawer isOpen={isOpen} onClose={() => setIsOpen(false)} />
    </>
  );
}
