import { parseSheetLine, type Circuit } from '@zemble/core';
import { Button } from 'antd';
import { useMemo } from 'react';
import styles from './trace.module.css';

interface Props {
  readonly lines: readonly string[];
  readonly circuit: Circuit;
  /** Takes a line into the field. */
  readonly onMend: (line: string) => void;
  readonly onDrop: (line: string) => void;
}

/** Lines of a pasted list that were refused, each with its reason, until they are mended or dropped. */
export function WaitingLines({ lines, circuit, onMend, onDrop }: Props) {
  const read = useMemo(() => lines.map((line) => parseSheetLine(line, circuit)), [lines, circuit]);
  if (lines.length === 0) return null;
  return (
    <section className={styles.waiting} aria-label="Lines to mend" role="alert">
      <h3>{lines.length === 1 ? 'One line of the list' : `${lines.length} lines of the list`} to mend</h3>
      <ul>
        {lines.map((line, i) => {
          const result = read[i]!;
          return (
            <li key={line}>
              <button className="zb-link zb-mono" onClick={() => onMend(line)} aria-label={`Mend ${line}`}>
                {line}
              </button>
              <span className="zb-dim">
                {result.ok ? `${result.part.ref} was in the list before it` : result.problem.message}
              </span>
              <Button size="small" type="text" onClick={() => onDrop(line)} aria-label={`Drop ${line}`}>
                Drop
              </Button>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
