import { Button, Drawer } from 'antd';
import { useOutbox, useOutboxState } from '../api/outbox-context.tsx';
import { copyText } from '../ui/copy-text.ts';
import { changeWords } from './change-words.ts';
import styles from './saving.module.css';

/** What the server would not take: what was typed, why it was refused, and what can be done with it. */
export function ParkedDrawer({ isOpen, onClose }: { isOpen: boolean; onClose: () => void }) {
  const outbox = useOutbox();
  const { parked } = useOutboxState();
  return (
    <Drawer open={isOpen} onClose={onClose} title="Not taken by the server" size="large">
      {parked.length === 0 && <p className="hs-dim">Everything that you entered was taken.</p>}
      <ul className={styles.parked}>
        {parked.map(({ key, change, refusal }) => (
          <li key={key}>
            <p className="hs-mono">{changeWords(change)}</p>
            <p className="hs-out">{refusal?.detail}</p>
            {refusal?.hint !== undefined && <p className="hs-dim">{refusal.hint}</p>}
            <div className="hs-answers">
              <Button size="small" onClick={() => void outbox.again(key)}>
                Send it again
              </Button>
              <Button size="small" onClick={() => void copyText(changeWords(change))}>
                Copy it
              </Button>
              <Button size="small" type="text" onClick={() => void outbox.discard(key)}>
                Let it go
              </Button>
            </div>
          </li>
        ))}
      </ul>
    </Drawer>
  );
}
