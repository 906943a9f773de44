import { formatPlain, markedNumber, type Part, type Verdict } from '@zemble/core';
import { useMemo, useRef } from 'react';
import { LayerMark, VerdictMark, verdictWords } from '../../ui/marks.tsx';
import { VirtualRows } from '../../ui/virtual-rows.tsx';
import { readingWords, valueWords } from './part-words.ts';
import { byHarm, type MeasuredPart } from './measured-parts.ts';
import styles from './measure.module.css';

interface ReadingsTableProps {
  readonly parts: readonly MeasuredPart[];
  /** The parts come in an order that was chosen; otherwise the drifted ones are put on top. */
  readonly isOrdered: boolean;
  readonly currentRef: string | null;
  readonly onSelect: (ref: string) => void;
}

/** All measurable parts, the drifted ones on top; those without a value of their own at the end, until they are read. */
export function ReadingsTable({ parts, isOrdered, currentRef, onSelect }: ReadingsTableProps) {
  const rows = useMemo(() => (isOrdered ? parts : byHarm(parts)), [parts, isOrdered]);
  const isOther = (p: MeasuredPart) => !p.isInRun && p.aspects.length === 0;
  const others = rows.filter(isOther);
  const listed = rows.filter((p) => !isOther(p));
  const scroller = useRef<HTMLDivElement>(null);
  return (
    <div
      ref={scroller}
      className="zb-scroll"
      tabIndex={0}
      role="group"
      aria-label="List of readings, scrolls"
    >
      <table className="zb-table" aria-rowcount={listed.length + 1}>
        <thead>
          <tr>
            <th>Part</th>
            <th className="zb-right">
              <LayerMark layer="marked" /> marked
            </th>
            <th className="zb-right">
              <LayerMark layer="found" /> found
            </th>
            <th className="zb-right">off by</th>
            <th>verdict</th>
          </tr>
        </thead>
        <VirtualRows
          items={listed}
          keyOf={(p) => p.part.ref}
          scroller={scroller}
          columns={5}
          current={listed.findIndex((p) => p.part.ref === currentRef)}
        >
          {(p) => <PartRows measured={p} isCurrent={p.part.ref === currentRef} onSelect={onSelect} />}
        </VirtualRows>
        {others.length > 0 && (
          <tbody>
            <tr className={styles.tableAside}>
              <td colSpan={5} className="zb-dim">
                Junctions, contacts and coils:{' '}
                {others.map((p) => (
                  <button
                    key={p.part.ref}
                    className={`zb-link zb-mono${p.part.ref === currentRef ? ` ${styles.linkOn}` : ''}`}
                    onClick={() => onSelect(p.part.ref)}
                    aria-label={`Measure ${p.part.ref}`}
                  >
                    {p.part.ref}
                  </button>
                ))}
              </td>
            </tr>
          </tbody>
        )}
      </table>
    </div>
  );
}

interface RowsProps {
  readonly measured: MeasuredPart;
  readonly isCurrent: boolean;
  readonly onSelect: (ref: string) => void;
}

/** A part's value, and below it what else was read of it. */
function PartRows({ measured, isCurrent, onSelect }: RowsProps) {
  const { part, reading, verdict, readingCount, aspects, isInRun } = measured;
  const className = isCurrent ? 'zb-row-selected' : undefined;
  const select = () => onSelect(part.ref);
  const printed = markedNumber(part);
  const marked = printed === null ? '–' : valueWords(part, printed);
  const head = (
    <button className="zb-link" onClick={select} aria-label={`Measure ${part.ref}`}>
      {part.ref}
    </button>
  );
  return (
    <>
      {isInRun && (
        <tr
          className={className}
          onClick={select}
          title={readingCount > 1 ? `${readingCount} readings are kept; the latest is shown` : undefined}
        >
          <td className="zb-ref">{head}</td>
          <td className="zb-number">{marked}</td>
          <td className={verdict?.isTrusted ? 'zb-number zb-found' : 'zb-number zb-dim'}>
            {reading ? valueWords(part, reading.value) : ''}
          </td>
          <VerdictCells verdict={verdict} />
        </tr>
      )}
      {aspects.map(({ aspect, reading: r, verdict: v }, i) => (
        <tr key={aspect} className={className} onClick={select} title={v?.sentence}>
          <td className="zb-ref">{!isInRun && i === 0 ? head : null}</td>
          <td className="zb-number zb-dim">{aspect}</td>
          <td className="zb-number">{readingWords(part as Part, r.value, aspect)}</td>
          <VerdictCells verdict={v} />
        </tr>
      ))}
    </>
  );
}

function VerdictCells({ verdict }: { verdict: Verdict | undefined }) {
  const deviation = verdict?.deviation;
  return (
    <>
      <td className="zb-number">
        {deviation === null || deviation === undefined ? '' : `${formatPlain(deviation * 100, 2, true)} %`}
      </td>
      <td>{verdict && <VerdictMark kind={verdict.kind} words={verdictWords(verdict)} />}</td>
    </>
  );
}
