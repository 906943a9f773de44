import type { Damage, EvidenceResource } from '@zemble/contract';
import { damageWords, evidenceSentence, FIRST_CHECKS, preparePath, type UnitDocument } from '@zemble/core';
import { Button } from 'antd';
import { useMemo } from 'react';
import { whenWords } from '../../ui/when.ts';
import styles from './find.module.css';

interface Props {
  readonly evidence: readonly EvidenceResource[];
  readonly document: UnitDocument;
  readonly ignored: ReadonlyMap<string, string>;
  readonly onWithdraw: (id: string) => void;
  readonly onUncheck: (id: string) => void;
  /** It was this damage. */
  readonly onBlame: (damage: Damage) => void;
  readonly onForget: (damage: Damage) => void;
}

/**
 * Every test that was made, newest first, with its result, and below them damage that was seen and the first checks; one can be taken back without
 * being lost.
 */
export function History({ evidence, document, ignored, onWithdraw, onUncheck, onBlame, onForget }: Props) {
  const path = useMemo(
    () => preparePath(document.path ?? { blocks: [], links: [] }, document.circuit),
    [document.path, document.circuit],
  );
  const made = document.intake?.checks ?? {};
  const checks = FIRST_CHECKS.filter((c) => made[c.id] !== undefined);
  const damage = document.intake?.damage ?? [];
  const convicted = document.intake?.convicted ?? [];
  if (evidence.length === 0 && checks.length === 0 && damage.length === 0)
    return <p className="zb-empty-words">Nothing is tested yet.</p>;
  return (
    <ol className={styles.history}>
      {[...evidence].reverse().map((e) => (
        <li key={e.id} className={e.withdrawn ? 'zb-undone' : undefined}>
          <time>{whenWords(e.takenAt)}</time>
          <span>
            {evidenceSentence(path, e)}
            {ignored.has(e.id) && <em className="zb-dim"> Not counted: {ignored.get(e.id)}.</em>}
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
      {damage.map((d) => (
        <li key={d.at}>
          <time>{whenWords(d.at)}</time>
          <span>Seen on the board: {damageWords(d)}.</span>
          {!convicted.some((c) => c.defect === d.defect && c.words === damageWords(d)) && (
            <Button
              size="small"
              type="text"
              onClick={() => onBlame(d)}
              aria-label={`It was this: ${damageWords(d)}`}
            >
              it was this
            </Button>
          )}
          <Button
            size="small"
            type="text"
            onClick={() => onForget(d)}
            aria-label={`Take back: ${damageWords(d)}`}
          >
            take back
          </Button>
        </li>
      ))}
      {checks.map((c) => (
        <li key={c.id}>
          <time>check</time>
          <span>
            {c.what.replace(/[.?]$/, '')}:{' '}
            {made[c.id] === 'fine' ? `fine, it rules out ${c.rulesOut}` : 'it was this'}.
          </span>
          <Button
            size="small"
            type="text"
            onClick={() => onUncheck(c.id)}
            aria-label={`Take back the check: ${c.what}`}
          >
            take back
          </Button>
        </li>
      ))}
    </ol>
  );
}
