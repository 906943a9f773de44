import type { ChangePurpose } from '@halfsplit/contract';
import { isTwoTerminal, parseChangeLine, type Circuit } from '@halfsplit/core';
import { Button, Input, Segmented, type InputRef } from 'antd';
import { useMemo, useRef, useState } from 'react';
import { useLocation } from 'react-router';
import { useSelection } from '../../unit/selection.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { Keys } from '../../ui/keys.tsx';
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

/** A line that another page hands over, to be completed here. */
function useHandedLine(): string | null {
  const { state } = useLocation() as { readonly state: unknown };
  return typeof state === 'object' && state !== null && 'line' in state ? String(state.line) : null;
}

/** One field for every change: what it does is said while it is typed, Enter keeps it. */
export function ChangeEntry() {
  const { document } = useUnitContext();
  const { add } = useChangeActions();
  const handed = useHandedLine();
  const [line, setLine] = useState(handed ?? '');
  const [work, setWork] = useState<Work>('modification');
  const field = useRef<InputRef>(null);
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
        <Segmented
          size="small"
          aria-label="What the change is for"
          value={work}
          onChange={setWork}
          options={KINDS_OF_WORK.map(({ value, label, title }) => ({ value, label, title }))}
        />
      </div>
      <Input
        ref={field}
        autoFocus={handed !== null}
        aria-label="Type a change"
        aria-describedby="change-read"
        className="hs-mono"
        value={line}
        onChange={(event) => setLine(event.target.value)}
        onPressEnter={keep}
        onKeyDown={(event) => event.key === 'Escape' && setLine('')}
        status={read && !read.ok ? 'error' : ''}
        placeholder="R4 -> 820 · +C30 470n n3 n4 via SW9 · swap R1.a R2.a"
      />
      <p id="change-read" className={styles.read} role="status">
        {read === null ? (
          <Offers circuit={document.circuit} onOffer={prefill} />
        ) : read.ok ? (
          <>
            <span className="hs-planned">{read.words}</span> <Keys keys="Enter" />
          </>
        ) : (
          <span className="hs-problem">{read.problem.message}</span>
        )}
      </p>
    </div>
  );
}

/** What can be done with what is selected: each begins the line. */
function Offers({ circuit, onOffer }: { circuit: Circuit; onOffer: (line: string) => void }) {
  const { selectedRef, selectedNet } = useSelection();
  const part = circuit.parts.find((p) => p.ref === selectedRef);
  const offers = part ? offersForPart(part) : selectedNet === null ? [] : offersForNet(selectedNet, circuit);
  if (offers.length === 0)
    return (
      <span className="hs-dim">Choose a part or a net on the drawing to see what can be done there.</span>
    );
  return (
    <>
      <span className="hs-ref">{part?.ref ?? selectedNet}</span>
      {offers.map(({ words, line }) => (
        <Button key={words} size="small" onClick={() => onOffer(line)}>
          {words}
        </Button>
      ))}
    </>
  );
}

interface Offer {
  readonly words: string;
  readonly line: string;
}

function offersForPart(part: Circuit['parts'][number]): Offer[] {
  const [first = '', second = ''] = Object.keys(part.pins);
  const [a, b] = [part.pins[first], part.pins[second]];
  return [
    { words: 'other value', line: `${part.ref} -> ` },
    ...(isTwoTerminal(part) ? [{ words: 'across', line: `+C 100n ${a} ${b}` }] : []),
    { words: 'in series', line: `+R 1k in series with ${part.ref}.${first}` },
    { words: 'take out', line: `-${part.ref}` },
    { words: 'lift a leg', line: `lift ${part.ref}.${first}` },
    { words: 'swap', line: `swap ${part.ref}.${first} ` },
  ];
}

function offersForNet(net: string, { ground }: Circuit): Offer[] {
  return [
    { words: 'to ground', line: `+C 100n ${net} ${ground}` },
    { words: 'cut here', line: `cut ${net} at ` },
    { words: 'wire to', line: `wire ${net} to ` },
  ];
}
