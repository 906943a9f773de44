import { DeleteOutlined } from '@ant-design/icons';
import { Button, Input, Select, Slider } from 'antd';
import { useState } from 'react';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { useIntake } from './use-intake.ts';
import styles from './intake.module.css';

const USUAL_WEIGHT = 4;

/** What others found on the same model: each note makes a block or a part that many times more suspect. */
export function OthersNotes() {
  const { document } = useUnitContext();
  const { intake, setIntake } = useIntake();
  const [text, setText] = useState('');
  const [target, setTarget] = useState<string | null>(null);
  const [weight, setWeight] = useState(USUAL_WEIGHT);
  const notes = intake.notes ?? [];
  const blocks = (document.path?.blocks ?? []).map((b) => ({
    value: `block ${b.id}`,
    label: b.name ?? b.id,
  }));
  const parts = document.circuit.parts.map((p) => ({ value: `part ${p.ref}`, label: p.ref }));
  const add = () => {
    if (text.trim() === '') return;
    const [kind, ...rest] = (target ?? '').split(' ');
    const id = rest.join(' ');
    const about = kind === 'block' ? { blockId: id } : kind === 'part' ? { ref: id } : {};
    setIntake({ notes: [...notes, { text: text.trim(), weight, ...about }] });
    setText('');
    setTarget(null);
    setWeight(USUAL_WEIGHT);
  };
  return (
    <section className="zb-block" aria-label="What others found">
      <h2>What others found on this model</h2>
      <ul className="zb-notes">
        {notes.map((n, i) => (
          <li key={`${n.text}${i}`}>
            <span>{n.text}</span>
            <span className="zb-dim">
              {n.blockId ?? n.ref ?? 'nothing in particular'} · {n.weight} times
            </span>
            <button
              className="zb-icon"
              aria-label={`Remove the note: ${n.text}`}
              onClick={() => setIntake({ notes: notes.filter((_, k) => k !== i) })}
            >
              <DeleteOutlined aria-hidden />
            </button>
          </li>
        ))}
      </ul>
      <div className={styles.noteEntry}>
        <Input
          value={text}
          onChange={(e) => setText(e.target.value)}
          onPressEnter={add}
          placeholder="the small electrolytic next to the regulator"
          aria-label="A note of what others found"
        />
        <Select
          showSearch
          allowClear
          value={target}
          onChange={(value: string | undefined) => setTarget(value ?? null)}
          options={[
            { label: 'Blocks', options: blocks },
            { label: 'Parts', options: parts },
          ]}
          placeholder="which one"
          aria-label="What the note is about"
        />
        <Slider
          min={1}
          max={20}
          value={weight}
          onChange={setWeight}
          tooltip={{ formatter: (w) => `${w} times as suspect` }}
          ariaLabelForHandle="How much the note weighs"
        />
        <Button onClick={add} disabled={text.trim() === ''}>
          Keep the note
        </Button>
      </div>
    </section>
  );
}
