import type { ChangePurpose } from '@zemble/contract';
import { parseChangeLine } from '@zemble/core';
import { Input, type InputRef } from 'antd';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useLocation } from 'react-router';
import { OneOf } from '../../ui/one-of.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { Keys } from '../../ui/keys.tsx';
import { Offers } from './offers.tsx';
import { useChangeActions } from './use-changes.ts';
import styles from './changes.module.css';

const KINDS_OF_WORK = [
  { value: 'modification', label: 'to stay', title: 'Planned, and done when it is ticked' },
  { value: 'trial', label: 'to try', title: 'Clipped on now; it stands on the ledger until it is back' },
  { value: 'diagnosis', label: 'to measure', title: 'Done now; it stands on the ledger until it is back' },
] as const;
type Work = (typeof KINDS_OF_WORK)[number]['value'];

/** "Slow switch: +C30 …": a name before the change. */
const NAMED = /^([^:;>+]{2,60}): ?(.+)$/;
const LONGEST_NAME = 120;

/** A line that is handed over from elsewhere, to be completed here, with the key of that move. */
function useHanded(): { readonly line: string | null; readonly key: string } {
  const { state, key } = useLocation() as { readonly state: unknown; readonly key: string };
  const isHanded = typeof state === 'object' && state !== null && 'line' in state;
  return { line: isHanded ? String(state.line) : null, key };
}

/** One field for every change: what it does is said while it is typed, Enter keeps it. */
export function ChangeEntry() {
  const { document } = useUnitContext();
  const { add } = useChangeActions();
  const handed = useHanded();
  const [line, setLine] = useState(handed.line ?? '');
  const [seenKey, setSeenKey] = useState(handed.key);
  if (seenKey !== handed.key) {
    setSeenKey(handed.key);
    // Nothing handed over leaves what is typed already.
    if (handed.line !== null && handed.line !== '') setLine(handed.line);
  }
  const [work, setWork] = useState<Work>('modification');
  const field = useRef<InputRef>(null);
  useEffect(() => {
    if (handed.line !== null) field.current?.focus();
  }, [handed.line, handed.key]);
  const [, name, phrase = line] = NAMED.exec(line) ?? [];
  const read = useMemo(
    () => (phrase.trim() === '' ? null : parseChangeLine(phrase, document.circuit)),
    [phrase, document.circuit],
  );
  const keep = () => {
    if (!read?.ok) return;
    const purpose: ChangePurpose = work;
    add({
      name: (name ?? read.words).slice(0, LONGEST_NAME),
      purpose,
      steps: read.steps,
      ...(work === 'modification' ? {} : { state: 'done' }),
    });
    setLine('');
  };
  const prefill = (text: string) => {
    setLine(text);
    field.current?.focus();
  };
  return (
    <div className={styles.entry}>
      <div className={styles.head}>
        <h2>Changes</h2>
        <OneOf label="What the change is for" options={KINDS_OF_WORK} value={work} onChange={setWork} />
      </div>
      <Input
        ref={field}
        aria-label="Type a change"
        aria-describedby="change-read"
        className="zb-mono"
        value={line}
        onChange={(event) => setLine(event.target.value)}
        onPressEnter={keep}
        onKeyDown={(event) => event.key === 'Escape' && setLine('')}
        status={read && !read.ok ? 'error' : ''}
        placeholder="R4 -> 820 · +C30 470n n3 n4 via SW9 · swap R1.a R2.a"
      />
      <p id="change-read" className={styles.read} role="status">
        {read === null ? (
          <Offers
            onOffer={prefill}
            otherwise="Choose a part or a net on the drawing to see what can be done there."
          />
        ) : read.ok ? (
          <>
            <span className="zb-planned">{read.words}</span> <Keys keys="Enter" />
          </>
        ) : (
          <span className="zb-problem">{read.problem.message}</span>
        )}
      </p>
    </div>
  );
}
