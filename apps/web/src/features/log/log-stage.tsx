import { newId } from '../../api/new-id.ts';
import { Button, Input } from 'antd';
import { useState } from 'react';
import { fileUrl } from '../../api/client.ts';
import { useUndoable } from '../../unit/use-undo.ts';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { Keys } from '../../ui/keys.tsx';
import { CircuitPanel } from '../circuit/index.ts';
import { whenWords } from '../../ui/when.ts';
import styles from './log.module.css';

const KIND_WORDS: Record<string, string> = {
  unit: 'unit',
  part: 'part',
  reading: 'reading',
  readout: 'readout',
  plan: 'plan',
  note: 'note',
  drawing: 'drawing',
  undo: 'taken back',
};

/** What was done, newest first, by itself; own notes; the last step can be taken back. */
export function LogStage() {
  const { unit, change } = useUnitContext();
  const [text, setText] = useState('');
  const undoable = useUndoable(unit);
  const addNote = () => {
    if (text.trim() === '') return;
    change({ type: 'add-note', id: newId(), text: text.trim() });
    setText('');
  };
  return (
    <div className="zb-split">
      <section className="zb-panel zb-sheet" aria-label="Log">
        <header className="zb-panel-head">
          <h2>Log</h2>
          <span className="zb-grow" />
          <a href={fileUrl(unit.id)}>Export the unit</a>
          {undoable && (
            <Button
              onClick={() => change({ type: 'undo', sequence: undoable.sequence })}
              title={undoable.summary}
            >
              Take back the last step <Keys keys="Ctrl Z" />
            </Button>
          )}
        </header>
        <div className="zb-entry">
          <Input.TextArea
            value={text}
            onChange={(event) => setText(event.target.value)}
            onPressEnter={(event) => {
              if (event.shiftKey) return;
              event.preventDefault();
              addNote();
            }}
            autoSize={{ minRows: 1, maxRows: 5 }}
            placeholder="A note for the next person. Enter keeps it."
            aria-label="Note"
          />
        </div>
        <div className="zb-scroll" tabIndex={0} role="group" aria-label="Log entries, scrolls">
          <ol className={styles.log}>
            {unit.log.map((entry) => (
              <li key={entry.id} className={entry.undone ? 'zb-undone' : undefined}>
                <time dateTime={entry.at}>{whenWords(entry.at)}</time>
                <span className={styles.logKind}>{KIND_WORDS[entry.kind] ?? entry.kind}</span>
                <span>
                  {entry.summary}
                  {entry.undone && <em> (taken back)</em>}
                  {entry.by !== null && <span className="zb-dim"> {entry.by}</span>}
                </span>
              </li>
            ))}
          </ol>
        </div>
      </section>
      <CircuitPanel />
    </div>
  );
}
