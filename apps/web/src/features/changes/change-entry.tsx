import type { ChangePurpose, Step } from '@zemble/contract';
import { asTypedNet, parseChangeLine, parseSheetLine, superseding, type KnownNets } from '@zemble/core';
import { Button, Input, type InputRef } from 'antd';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useLocation } from 'react-router';
import { useTypedWarnings } from '../../compute/use-typed-warnings.ts';
import { OneOf } from '../../ui/one-of.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { Keys } from '../../ui/keys.tsx';
import { BothChannelsBox, useBothChannels } from './both-channels.tsx';
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

/** Key, with Alt, that turns a polarised part of the typed line round. */
const TURN_KEY = 't';
const REVERSED = /plus stands .* below its minus/;

/** The typed line with the two nets of a part that it adds changed over; null where it adds none such. */
export function turnedRound(line: string, ref: string | undefined, known: KnownNets): string | null {
  if (ref === undefined) return null;
  const phrases = line.split(';');
  const at = phrases.findIndex((phrase) => new RegExp(`(?:^|[:\\s])\\+\\s?${ref}\\s`, 'i').test(phrase));
  if (at < 0) return null;
  const read = parseSheetLine(
    phrases[at]!.slice(phrases[at]!.indexOf('+') + 1).replace(/ via \S+\s*$/i, ''),
    known,
  );
  const nets = read.ok ? Object.values(read.part.pins) : [];
  if (nets.length !== 2) return null;
  // The two nets are the words that are they, the last ones of the line: what stands between is kept.
  const words = phrases[at]!.split(/(\s+)/);
  const [first, second] = nets.map((net) =>
    words.findLastIndex((word) => asTypedNet(word, known) === net),
  ) as [number, number];
  if (first < 0 || second < 0 || first === second) return null;
  [words[first], words[second]] = [words[second]!, words[first]!];
  phrases[at] = words.join('');
  return phrases.join(';');
}

/** A line that is handed over from elsewhere, to be completed here, with the key of that move. */
function useHanded(): { readonly line: string | null; readonly key: string } {
  const { state, key } = useLocation() as { readonly state: unknown; readonly key: string };
  const isHanded = typeof state === 'object' && state !== null && 'line' in state;
  return { line: isHanded ? String(state.line) : null, key };
}

const NO_STEPS: readonly Step[] = [];

/** One field for every change: what it does is said while it is typed, Enter keeps it. */
export function ChangeEntry() {
  const { document, unit } = useUnitContext();
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
  // What is done to measure is done at the part that is measured.
  const isForBoth = read?.ok === true && work !== 'diagnosis';
  const both = useBothChannels(document.circuit, isForBoth ? read.steps : NO_STEPS);
  const steps = isForBoth ? both.steps : read?.ok ? read.steps : NO_STEPS;
  const warnings = useTypedWarnings(document.circuit, read?.ok ? steps : null);
  const reversed = warnings.find(
    (p) => turnedRound(line, p.ref, document.circuit) !== null && REVERSED.test(p.message),
  );
  const replaced = read?.ok && work === 'modification' ? superseding(unit, steps).names : [];
  const turnRound = () => {
    const turned = turnedRound(line, reversed?.ref, document.circuit);
    if (turned !== null) setLine(turned);
  };
  const keep = () => {
    if (!read?.ok) return;
    const purpose: ChangePurpose = work;
    add({
      name: (name ?? read.words).slice(0, LONGEST_NAME),
      purpose,
      steps,
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
        onKeyDown={(event) => {
          if (event.key === 'Escape') setLine('');
          if (event.key.toLowerCase() === TURN_KEY && event.altKey && reversed) {
            event.preventDefault();
            turnRound();
          }
        }}
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
            <BothChannelsBox {...both} />
            {replaced.length > 0 && ` In place of what is planned by ${replaced.join(', ')}.`}
          </>
        ) : (
          <span className="zb-problem">{read.problem.message}</span>
        )}
      </p>
      {warnings.length > 0 && (
        <ul className={styles.warnings} role="alert">
          {warnings.map((p) => (
            <li key={p.message} className="zb-problem">
              {p.message}{' '}
              {p === reversed && (
                <Button size="small" onClick={turnRound}>
                  Turn it round <Keys keys="Alt T" />
                </Button>
              )}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
