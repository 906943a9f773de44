import { Button, Drawer, Input } from 'antd';
import { useState } from 'react';
import type { Write } from '../api/act.ts';
import { useOutbox, useOutboxState } from '../api/outbox-context.tsx';
import { copyText } from '../ui/copy-text.ts';
import { changeWords } from './change-words.ts';
import { correctable, type Correctable } from './correct.ts';
import styles from './saving.module.css';

/** What the server would not take: what was typed, why it was refused, and what can be done with it. */
export function ParkedDrawer({ isOpen, onClose }: { isOpen: boolean; onClose: () => void }) {
  const { parked, ofOthers, unreadable } = useOutboxState();
  return (
    <Drawer open={isOpen} onClose={onClose} title="Not taken by the server" size="large">
      {parked.length + ofOthers.length + unreadable.length === 0 && (
        <p className="zb-dim">Everything that you entered was taken.</p>
      )}
      <ul className={styles.parked}>
        {parked.map((write) => (
          <ParkedChange key={write.key} write={write} />
        ))}
      </ul>
      {ofOthers.length > 0 && (
        <section aria-label="Of somebody else">
          <h3>Entered here by somebody else</h3>
          <p className="zb-dim">
            It waits until whoever entered it is signed in on this device again. Sent by you, it stands in the
            log under your name.
          </p>
          <ul className={styles.parked}>
            {ofOthers.map((write) => (
              <OfOther key={write.key} write={write} />
            ))}
          </ul>
        </section>
      )}
      {unreadable.length > 0 && (
        <section aria-label="Not readable">
          <h3>Kept here, and not readable by this version</h3>
          <p className="zb-dim">It stays on this device; a version that knows it sends it.</p>
          <ul className={styles.parked}>
            {unreadable.map((text) => (
              <li key={text}>
                <p className="zb-mono">{text}</p>
                <Button size="small" onClick={() => void copyText(text)}>
                  Copy it
                </Button>
              </li>
            ))}
          </ul>
        </section>
      )}
    </Drawer>
  );
}

function OfOther({ write: { key, change } }: { write: Write }) {
  const outbox = useOutbox();
  return (
    <li>
      <p className="zb-mono">{changeWords(change)}</p>
      <div className="zb-answers">
        <Button size="small" onClick={() => void outbox.handOver(key)}>
          Send it as mine
        </Button>
        <Button size="small" onClick={() => void copyText(changeWords(change))}>
          Copy it
        </Button>
        <Button size="small" type="text" onClick={() => void outbox.discard(key)}>
          Let it go
        </Button>
      </div>
    </li>
  );
}

function ParkedChange({ write: { key, change, refusal } }: { write: Write }) {
  const outbox = useOutbox();
  const [isEdited, setIsEdited] = useState(false);
  const typed = correctable(change);
  return (
    <li>
      <p className="zb-mono">{changeWords(change)}</p>
      <p className="zb-out">{refusal?.detail}</p>
      {refusal?.hint !== undefined && <p className="zb-dim">{refusal.hint}</p>}
      {typed && isEdited ? (
        <Correction typed={typed} writeKey={key} onLeave={() => setIsEdited(false)} />
      ) : (
        <div className="zb-answers">
          {typed && (
            <Button size="small" type="primary" onClick={() => setIsEdited(true)}>
              Correct it
            </Button>
          )}
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
      )}
    </li>
  );
}

interface CorrectionProps {
  readonly typed: Correctable;
  readonly writeKey: string;
  readonly onLeave: () => void;
}

/** What was typed, in a field again. */
function Correction({ typed, writeKey, onLeave }: CorrectionProps) {
  const outbox = useOutbox();
  const [text, setText] = useState(typed.text);
  const [why, setWhy] = useState<string | null>(null);
  const send = () => {
    const read = typed.read(text.trim());
    if ('why' in read) setWhy(read.why);
    else void outbox.again(writeKey, read.change);
  };
  return (
    <>
      <Input.TextArea
        value={text}
        autoFocus
        autoSize
        className="zb-mono"
        onChange={(event) => setText(event.target.value)}
        onPressEnter={(event) => {
          event.preventDefault();
          send();
        }}
        aria-label="Corrected"
        aria-invalid={why !== null}
      />
      <p className="zb-out" role="alert">
        {why}
      </p>
      <div className="zb-answers">
        <Button size="small" type="primary" onClick={send}>
          Send it corrected
        </Button>
        <Button size="small" type="text" onClick={onLeave}>
          Leave it as it was
        </Button>
      </div>
    </>
  );
}
