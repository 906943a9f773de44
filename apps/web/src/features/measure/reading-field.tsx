import {
  ageingWords,
  aspectsOf,
  entryHeads,
  expectedAlone,
  formatQuantity,
  judgeReading,
  markedNumber,
  parseEntry,
  usualTolerance,
  type Entry,
  type EntryResult,
  type Part,
  type UnitDocument,
  type Verdict,
} from '@zemble/core';
import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { useBench } from '../../unit/use-bench.ts';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { Bands } from '../../ui/bands.tsx';
import { Keys } from '../../ui/keys.tsx';
import { OneOf } from '../../ui/one-of.tsx';
import { VerdictMark } from '../../ui/marks.tsx';
import { useComputed } from '../../compute/use-computed.ts';
import { useExpectedInCircuit } from '../../compute/use-measuring.ts';
import { markingOf, readingWords, typedAspects } from './part-words.ts';
import type { MeasuredPart } from './measured-parts.ts';
import styles from './measure.module.css';

/** How a part is read with the meter in hand. */
export const CONDITIONS = ['in circuit', 'leg lifted'] as const;
export type Condition = (typeof CONDITIONS)[number];

interface ReadingFieldProps {
  readonly subject: MeasuredPart;
  /** What is typed; it outlives the part, so that a net can be begun from the table. */
  readonly text: string;
  readonly onText: (text: string) => void;
  readonly condition: Condition;
  /** Undefined while a leg of the part is out by the ledger: then it is read by itself. */
  readonly onCondition: ((condition: Condition) => void) | undefined;
  readonly onEnter: (entry: Entry) => void;
  readonly onSkip: () => void;
  readonly onStep: (by: number) => void;
  /** Answers what was asked of a reading; undefined when nothing is. */
  readonly onAnswer: ((index: number) => void) | undefined;
}

/** A bare value is the current part's; a line that begins with a name is what it says. */
function readLine(text: string, part: Part, document: UnitDocument): EntryResult | null {
  const [first] = text.trim().toLowerCase().split(/\s+/);
  if (!first) return null;
  // "gain 210" of a transistor is its own, though a readout may be called so too.
  if (aspectsOf(part).some((a) => a.words.includes(first)))
    return parseEntry(`${part.ref} ${text}`, document);
  const named = parseEntry(text, document);
  if (named.ok) return named;
  const bare = parseEntry(`${part.ref} ${text}`, document);
  // A line with a name of its own that cannot be read is not taken for a bare value.
  const startsWithName = /^[A-Za-z]/.test(text.trim()) && text.trim().includes(' ');
  return bare.ok || !startsWithName ? bare : named;
}

const isTypedInto = (element: Element | null): boolean =>
  element instanceof HTMLInputElement || element instanceof HTMLTextAreaElement;

/** The field in which everything is typed, with the part the run has come to. */
export function ReadingField(props: ReadingFieldProps) {
  const { subject, text, onText, condition, onCondition, onEnter, onSkip, onStep, onAnswer } = props;
  const document = useBench(useUnitContext().document);
  const { part } = subject;
  const [isRefused, setIsRefused] = useState(false);
  const field = useRef<HTMLInputElement>(null);
  const { ref } = part;
  useEffect(() => {
    // Another page may measure while something is typed elsewhere on this one: that keeps the keyboard.
    if (!isTypedInto(globalThis.document.activeElement)) field.current?.focus();
  }, [text, ref]);
  const read = readLine(text, part, document);
  const entry = read?.ok ? read.entry : null;
  const subjectPart =
    entry?.kind === 'part' ? document.circuit.parts.find((p) => p.ref === entry.ref) : undefined;
  const verdict =
    entry?.kind === 'part' && subjectPart && entry.aspect === undefined
      ? judgeReading(subjectPart, { value: entry.value, condition: entry.condition ?? condition })
      : null;
  const isInCircuit = condition === 'in circuit';
  const computed = useComputed(document);
  const here = useExpectedInCircuit(computed, isInCircuit && subject.isInRun ? ref : null);
  const expected = isInCircuit ? here : subject.isInRun ? expectedAlone(part) : null;
  const words = completionsOf(text, document);
  const choose = (next: Condition) => {
    onCondition?.(next);
    // The next thing typed is the reading.
    field.current?.focus();
  };
  const onKey = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key === 'Enter') {
      event.preventDefault();
      if (!read) onSkip();
      else if (read.ok) onEnter(read.entry);
      else setIsRefused(true);
    } else if (event.key === 'Tab' && !event.shiftKey && words[0] !== undefined) {
      // Only where it completes a word; otherwise it goes on to the next thing, as everywhere.
      event.preventDefault();
      onText(`${words[0]} `);
    } else if (text === '' && (event.key === 'ArrowDown' || event.key === 'ArrowUp')) {
      event.preventDefault();
      onStep(event.key === 'ArrowDown' ? 1 : -1);
    } else if (onAnswer && text === '' && (event.key === 'ArrowLeft' || event.key === 'ArrowRight')) {
      event.preventDefault();
      onAnswer(event.key === 'ArrowLeft' ? 0 : 1);
    } else if (event.key === ' ' && text === '') {
      event.preventDefault();
      choose(isInCircuit ? 'leg lifted' : 'in circuit');
    } else if (event.key === 'Escape') onText('');
  };
  const printed = markedNumber(part);
  return (
    <div className={styles.run}>
      <div className={styles.runPart}>
        <strong className={styles.runRef}>{part.ref}</strong>
        <span className={styles.runMarking}>{markingOf(part)}</span>
        {ageingWords(part) !== undefined && <span className="zb-dim">{ageingWords(part)}</span>}
        {part.kind === 'resistor' && printed !== null && (
          <Bands ohms={printed} tolerance={usualTolerance(part)} />
        )}
      </div>
      <div className={styles.runEntry}>
        <input
          ref={field}
          className={styles.runField}
          value={text}
          onChange={(event) => {
            onText(event.target.value);
            setIsRefused(false);
          }}
          onKeyDown={onKey}
          aria-label={`Reading of ${part.ref}`}
          aria-invalid={isRefused}
          spellCheck={false}
          autoComplete="off"
          autoCapitalize="off"
          inputMode="text"
        />
      </div>
      <div className={styles.runHow}>
        <OneOf
          label="How it is read"
          options={CONDITIONS}
          value={condition}
          onChange={choose}
          isDisabled={onCondition === undefined}
        />
        {onCondition ? <Keys keys="Space" /> : <span className="zb-dim">its leg is out</span>}
        {expected !== null && (
          <span className={styles.expected} title={expected.reason}>
            should read {expected.words}
          </span>
        )}
      </div>
      <p className={`zb-entry-note${isRefused ? ' zb-refused' : ''}`} role={isRefused ? 'alert' : undefined}>
        {words.length > 0 ? (
          <>
            <Keys keys="Tab" /> <span className="zb-mono">{words.join('  ')}</span>
          </>
        ) : !read && !subject.isInRun ? (
          <>
            Type what is read of it: <span className="zb-mono">{typedAspects(part).join(', ')}</span>.
          </>
        ) : !read ? (
          <>
            <Keys keys="Enter" /> takes the reading; empty, it skips. Anything else goes in by name:{' '}
            <span className="zb-mono">R7 62k</span>, <span className="zb-mono">Q2c 4.1V</span>,{' '}
            <span className="zb-mono">TP5 hum</span>.
          </>
        ) : !read.ok ? (
          read.problem.message
        ) : (
          <EntryWords
            entry={read.entry}
            part={subjectPart}
            isOther={subjectPart?.ref !== part.ref}
            verdict={verdict}
          />
        )}
      </p>
    </div>
  );
}

/** What an entry was understood as, before it is taken. */
function EntryWords({
  entry,
  part,
  isOther,
  verdict,
}: {
  entry: Entry;
  part: Part | undefined;
  isOther: boolean;
  verdict: Verdict | null;
}) {
  if (entry.kind === 'part' && part)
    return (
      <>
        {isOther && <strong>{entry.ref} </strong>}
        <span className="zb-number">{readingWords(part, entry.value, entry.aspect)}</span>{' '}
        {entry.aspect !== undefined && <>{entry.aspect} </>}
        {entry.esr !== undefined && `ESR ${formatQuantity(entry.esr, 'ohm')} `}
        {verdict && <VerdictMark kind={verdict.kind} words={verdict.sentence} />}
      </>
    );
  if (entry.kind === 'voltage')
    return (
      <>
        {formatQuantity(entry.value, 'V', { digits: 4 })}
        {VOLTAGE_WORDS[entry.unit]} at {entry.at}
      </>
    );
  if (entry.kind === 'seen')
    return (
      <>
        {entry.saw} at {entry.at}
      </>
    );
  return <>what the bench says of a readout: {entry.kind === 'readout' ? entry.value : ''}</>;
}

const VOLTAGE_WORDS = { V: '', Vrms: ' of tone, rms,', Vpp: ' of ripple, peak to peak,' } as const;
const MOST_WORDS = 6;

/** Names that the first word may become; none once it is one. */
function completionsOf(text: string, document: UnitDocument): string[] {
  const word = text.trimStart().toLowerCase();
  if (word === '' || /\s/.test(word) || !/^[a-z]/.test(word)) return [];
  const heads = entryHeads(document);
  if (heads.some((h) => h.toLowerCase() === word)) return [];
  return heads.filter((h) => h.toLowerCase().startsWith(word)).slice(0, MOST_WORDS);
}
