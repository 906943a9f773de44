import { CheckCircleFilled, ClockCircleOutlined, WarningOutlined } from '@ant-design/icons';
import { Button, Tooltip } from 'antd';
import { lazy, Suspense, useState } from 'react';
import { useOutboxState } from '../api/outbox-context.tsx';
import type { SaveState } from '../api/outbox.ts';
import styles from './saving.module.css';

const ParkedDrawer = lazy(() => import('./parked-drawer.tsx').then((m) => ({ default: m.ParkedDrawer })));

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

/** Whether what was entered is on the server, and what it would not take. */
export function Saving() {
  const { state, pending, parked, ofOthers, unreadable, notKept } = useOutboxState();
  const aside = [
    ...(parked.length > 0 ? [`${parked.length} refused`] : []),
    ...(ofOthers.length > 0 ? [`${ofOthers.length} of somebody else`] : []),
    ...(unreadable.length > 0 ? [`${unreadable.length} not readable`] : []),
  ];
  const [isOpen, setIsOpen] = useState(false);
  const { word, tone, hint } = STATES[state];
  return (
    <>
      {notKept !== null && (
        <Tooltip title={notKept}>
          <span className={styles.notKept} role="alert">
            <WarningOutlined aria-hidden /> not kept here
          </span>
        </Tooltip>
      )}
      <Tooltip title={hint}>
        <span
          className={styles.saving}
          role="status"
          data-state={state}
          style={{ color: `var(--zb-${tone})` }}
        >
          {state === 'saved' ? <CheckCircleFilled aria-hidden /> : <ClockCircleOutlined aria-hidden />} {word}
          {state === 'waiting' && ` (${pending.length})`}
        </span>
      </Tooltip>
      {aside.length > 0 && (
        <Button size="small" danger onClick={() => setIsOpen(true)}>
          {aside.join(', ')}
        </Button>
      )}
      {isOpen && (
        <Suspense fallback={null}>
          <ParkedDrawer isOpen={isOpen} onClose={() => setIsOpen(false)} />
        </Suspense>
      )}
    </>
  );
}
