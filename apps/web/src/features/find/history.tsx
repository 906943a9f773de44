import type { EvidenceResource } from '@halfsplit/contract';
import { evidenceSentence, preparePath, type UnitDocument } from '@halfsplit/core';
import { Button } from 'antd';
import dayjs from 'dayjs';
import { useMemo } from 'react';

interface Props {
  readonly evidence: readonly EvidenceResource[];
  readonly document: UnitDocument;
  readonly ignored: ReadonlyMap<string, string>;
  readonly onWithdraw: (id: string) => void;
}

/** Every test that was made, newest first, with its result; one can be taken back without being lost. */
export function History({ evidence, document, ignored, onWithdraw }: Props) {
  const path = useMemo(
    () => preparePath(document.path ?? { blocks: [], links: [] }, document.circuit),
    [document.path, document.circuit],
  );
  if (evidence.length === 0) return <p className="hs-empty-words">Nothing is tested yet.</p>;
  return (
    <ol className="hs-history">
      {[...evidence].reverse().map((e) => (
        <li key={e.id} className={e.withdrawn ? 'hs-undone' : undefined}>
          <time>{dayjs(e.takenAt).format('HH:mm')}</time>
          <span>
            {evidenceSentence(path, e)}
            {ignored.has(e.id) && <em className="hs-dim"> Not counted: {ignored.get(e.id)}.</em>}
          </span>
          {!e.withdrawn && (
            <Button
              size="small"
              type="text"
              onClick={() => onWithdraw(e.id)}
              aria-label={`Take back: ${evidenceSentence(path, e)}`}
            >
              take back
            </Button>
          )}
        </li>
      ))}
    </ol>
  );
}
