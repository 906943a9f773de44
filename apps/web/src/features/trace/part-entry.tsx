import type { PartResource } from '@zemble/contract';
import { formatSheetLine, parseSheetLine, partWords, readPart, type Circuit, type Part } from '@zemble/core';
import { useEffect, useMemo, useRef, type KeyboardEvent } from 'react';
import { Keys } from '../../ui/keys.tsx';
import { TypedLine } from '../../ui/typed-line.tsx';
import { useTypedLine } from '../../ui/use-typed-line.ts';
import { completed, completions } from './complete-word.ts';
import styles from './trace.module.css';

interface PartEntryProps {
  readonly circuit: Circuit;
  /** The part whose line stands in the field; null for a new one. */
  readonly editing: PartResource | null;
  readonly onEnter: (part: Part) => void;
  /** A list was pasted. */
  readonly onList: (text: string) => void;
  /** A line that waits to be mended, to begin with. */
  readonly mending?: string | null;
  /** Brings the chosen part into the field. */
  readonly onEdit: () => void;
  readonly onRemove: () => void;
  readonly onStep: (by: number) => void;
  readonly onLeave: () => void;
}

const lineOf = (resource: PartResource | null): string =>
  resource === null ? '' : formatSheetLine(readPart(resource.part, resource.part.ref, []));

/** The field in which a part's line is typed, with what it is understood as. */
export function PartEntry(props: PartEntryProps) {
  const { circuit, editing, onEnter, onList, mending = null, onEdit, onRemove, onStep, onLeave } = props;
  const { line, setLine, isRefused, refuse } = useTypedLine(() => mending ?? lineOf(editing));
  const field = useRef<HTMLInputElement>(null);
  const read = useMemo(() => (line.trim() === '' ? null : parseSheetLine(line, circuit)), [line, circuit]);
  const words = useMemo(() => completions(line, circuit), [line, circuit]);
  useEffect(() => field.current?.focus(), []);
  const clear = () => {
    setLine('');
    if (editing) onLeave();
  };
  const commit = () => {
    if (!read) return;
    if (!read.ok) {
      refuse();
      return;
    }
    clear();
    onEnter(read.part);
  };
  const onKey = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key === 'Enter') {
      event.preventDefault();
      if (line.trim() === '') onEdit();
      else commit();
    } else if (event.key === 'Tab' && !event.shiftKey && words[0]) {
      event.preventDefault();
      setLine(completed(line, words[0]));
    } else if (event.key === 'Escape') {
      clear();
    } else if (line === '' && (event.key === 'ArrowDown' || event.key === 'ArrowUp')) {
      event.preventDefault();
      onStep(event.key === 'ArrowDown' ? 1 : -1);
    } else if (line === '' && event.key === 'Delete') {
      onRemove();
    }
  };
  const replaced =
    read?.ok === true && !editing && circuit.parts.some((p) => p.ref === read.part.ref)
      ? read.part.ref
      : null;
  return (
    <TypedLine
      field={field}
      label={editing ? `Change ${editing.part.ref}` : 'Type a part'}
      placeholder="R4 47k in n2"
      line={line}
      onLine={setLine}
      onKeyDown={onKey}
      onLines={onList}
      isRefused={isRefused}
      note={
        read === null ? (
          <>
            A line is designator, value, nets; a pasted list is as many lines. <Keys keys="Enter" /> adds it,{' '}
            <Keys keys="↑ ↓" /> choose a row.
          </>
        ) : read.ok ? (
          <>
            <strong>{partWords(read.part)}</strong>
            {replaced !== null && `, replaces the ${replaced} that is there`}
          </>
        ) : (
          read.problem.message
        )
      }
    >
      {words.length > 0 && (
        <p className={styles.completions}>
          <Keys keys="Tab" />
          {words.map((word) => (
            <button
              key={word}
              tabIndex={-1}
              onClick={() => {
                setLine(completed(line, word));
                field.current?.focus();
              }}
            >
              {word}
            </button>
          ))}
        </p>
      )}
    </TypedLine>
  );
}
