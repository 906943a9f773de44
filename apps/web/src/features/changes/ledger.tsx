import { PaperClipOutlined } from '@ant-design/icons';
import { Button, Drawer } from 'antd';
import dayjs from 'dayjs';
import { useState } from 'react';
import { useSelection } from '../../unit/selection.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { useChangeActions, useLedger } from './use-changes.ts';
import styles from './changes.module.css';

/** How many temporary changes are in force, always in sight; a press shows what must come back. */
export function LedgerButton() {
  const ledger = useLedger();
  const [isOpen, setIsOpen] = useState(false);
  const { unit } = useUnitContext();
  const { put } = useChangeActions();
  const { selectRef, selectNet } = useSelection();
  const count = ledger.length;
  return (
    <>
      <Button
        size="small"
        type={count > 0 ? 'default' : 'text'}
        className={count > 0 ? `${styles.ledger} ${styles.ledgerOpen}` : styles.ledger}
        icon={<PaperClipOutlined aria-hidden />}
        onClick={() => setIsOpen(true)}
        aria-label={`Ledger: ${count === 0 ? 'nothing' : count} to come back`}
        title="What is temporary and must come back"
      >
        {count} <span className={styles.ledgerWords}>to come back</span>
      </Button>
      <Drawer open={isOpen} onClose={() => setIsOpen(false)} title="Must come back" size="large">
        {count === 0 ? (
          <p className="hs-dim">
            Nothing temporary is in force. A lifted leg, a clipped-on part or a dummy load stands here from
            the moment it is typed until it is back.
          </p>
        ) : (
          <p>Until this list is empty the unit is not finished, and its cover stays open.</p>
        )}
        <ul className={styles.list}>
          {ledger.map((entry) => (
            <li key={entry.id} className={styles.row}>
              <div className={styles.what}>
                <button
                  className={`hs-link ${styles.name}`}
                  onClick={() => {
                    if (entry.refs[0] !== undefined) selectRef(entry.refs[0]);
                    else if (entry.nets[0] !== undefined) selectNet(entry.nets[0]);
                    setIsOpen(false);
                  }}
                >
                  {entry.sentence}
                </button>
                <span>{entry.undo}</span>
                {entry.since !== undefined && (
                  <span className="hs-dim">since {dayjs(entry.since).format('D MMM HH:mm')}</span>
                )}
              </div>
              <Button
                type="primary"
                onClick={() => {
                  const resource = unit.changes.find((c) => c.change.id === entry.id);
                  if (resource) put(resource, 'undone');
                }}
              >
                It is back
              </Button>
            </li>
          ))}
        </ul>
      </Drawer>
    </>
  );
}
