import { UndoOutlined } from '@ant-design/icons';
import { beepSentence } from '@zemble/core';
import { useState } from 'react';
import { useUnitContext } from '../../unit/unit-context.tsx';
import styles from './beeps.module.css';
import type { Beeps } from './use-beeps.ts';

/** Beeps that are shown before all are asked for. */
const SHOWN = 12;

/** What was heard, the newest first; each can be withdrawn, and the nets are as they were without it. */
export function BeepHistory({ beeps }: { beeps: Beeps }) {
  const { unit } = useUnitContext();
  const [isWhole, setIsWhole] = useState(false);
  const all = [...unit.beeps].reverse();
  const shown = isWhole ? all : all.slice(0, SHOWN);
  if (all.length === 0) return null;
  return (
    <>
      <h3 className={styles.title}>What was heard</h3>
      <ol className={styles.history}>
        {shown.map((beep) => (
          <li key={beep.id} className={beep.withdrawn ? 'zb-undone' : undefined}>
            <span>{beepSentence(beep)}</span>
            {!beep.withdrawn && (
              <button
                className="zb-icon"
                aria-label={`Withdraw: ${beepSentence(beep)}`}
                title="Withdraw it"
                onClick={() => beeps.withdraw(beep)}
              >
                <UndoOutlined aria-hidden />
              </button>
            )}
          </li>
        ))}
      </ol>
      {all.length > shown.length && (
        <p className={styles.alone}>
          <button className="zb-link" onClick={() => setIsWhole(true)}>
            Show all {all.length}
          </button>
        </p>
      )}
    </>
  );
}
