import { formatPlain } from '@halfsplit/core';
import { useMemo } from 'react';
import { LayerMark, VerdictMark } from '../../ui/marks.tsx';
import { valueWords } from './part-words.ts';
import { byHarm, type MeasuredPart } from './run.ts';

interface ReadingsTableProps {
  readonly parts: readonly MeasuredPart[];
  /** The parts come in an order that was chosen; otherwise the drifted ones are put on top. */
  readonly isOrdered: boolean;
  readonly currentRef: string | null;
  readonly onSelect: (ref: string) => void;
}

/** All measurable parts, the drifted ones on top. */
export function ReadingsTable({ parts, isOrdered, currentRef, onSelect }: ReadingsTableProps) {
  const rows = useMemo(() => (isOrdered ? parts : byHarm(parts)), [parts, isOrdered]);
  return (
    <div className="hs-scroll" tabIndex={0} aria-label="List of readings, scrolls">
      <table className="hs-table">
        <thead>
          <tr>
            <th>Part</th>
            <th className="hs-right">
              <LayerMark layer="marked" /> marked
            </th>
            <th className="hs-right">
              <LayerMark layer="found" /> found
            </th>
            <th className="hs-right">off by</th>
            <th>verdict</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ resource, part, reading, verdict, readingCount }) => (
            <tr
              key={resource.id}
              className={part.ref === currentRef ? 'hs-row-selected' : undefined}
              onClick={() => onSelect(part.ref)}
              title={readingCount > 1 ? `${readingCount} readings are kept; the latest is shown` : undefined}
            >
              <td className="hs-ref">
                <button
                  className="hs-link"
                  onClick={() => onSelect(part.ref)}
                  aria-label={`Measure ${part.ref}`}
                >
                  {part.ref}
                </button>
              </td>
              <td className="hs-number">
                {typeof part.marked === 'number' ? valueWords(part, part.marked) : '–'}
              </td>
              <td className={verdict?.isTrusted ? 'hs-number hs-found' : 'hs-number hs-dim'}>
                {reading ? valueWords(part, reading.value) : ''}
              </td>
              <td className="hs-number">
                {verdict?.deviation === null || verdict === undefined
                  ? ''
                  : `${formatPlain(verdict.deviation * 100, 2, true)} %`}
              </td>
              <td>{verdict && <VerdictMark kind={verdict.kind} />}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
