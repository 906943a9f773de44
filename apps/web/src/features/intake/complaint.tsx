import { unitAct } from '../../api/unit-act.ts';
import { SoundOutlined } from '@ant-design/icons';
import { HAZARDS, HEARD, type Heard, type Hazard } from '@zemble/contract';
import { Button, Checkbox, Input, InputNumber, Select } from 'antd';
import { useState } from 'react';
import { useMains } from '../../api/use-mains.ts';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { playSound } from './play-sound.ts';
import { useIntake } from './use-intake.ts';
import styles from './intake.module.css';

/** What is said of the fault: in the owner's words, and as facts that the search can use. */
export function Complaint() {
  const { unit, change } = useUnitContext();
  const { intake, setIntake } = useIntake();
  const { mainsHz } = useMains();
  const heard = intake.heard ?? [];
  const toggle = (sound: Heard) =>
    setIntake({ heard: heard.includes(sound) ? heard.filter((h) => h !== sound) : [...heard, sound] });
  return (
    <section className="zb-block" aria-label="Complaint">
      <h2>What it does wrong</h2>
      <Kept
        label="In the words of who brought it"
        value={intake.words ?? ''}
        rows={3}
        onKeep={(words) => setIntake({ words })}
      />
      <p className="zb-field-label" id="heard-label">
        It sounds like this one
      </p>
      <ul className={styles.sounds} aria-labelledby="heard-label">
        <li>
          <Button
            type="text"
            icon={<SoundOutlined />}
            onClick={() => playSound('as it should be', mainsHz)}
            aria-label="Play how it should sound"
          />
          <span className="zb-dim">as it should be</span>
        </li>
        {HEARD.map((sound) => (
          <li key={sound}>
            <Button
              type="text"
              icon={<SoundOutlined />}
              onClick={() => playSound(sound, mainsHz)}
              aria-label={`Play ${sound}`}
            />
            <Checkbox checked={heard.includes(sound)} onChange={() => toggle(sound)}>
              {sound}
            </Checkbox>
          </li>
        ))}
      </ul>
      <div className={`zb-fields ${styles.thirds}`}>
        <Kept
          label="Which outputs"
          value={intake.outputs ?? ''}
          placeholder="left only, headphones too"
          onKeep={(outputs) => setIntake({ outputs })}
        />
        <Kept
          label="Since when"
          value={intake.since ?? ''}
          placeholder="Monday, since it fell"
          onKeep={(since) => setIntake({ since })}
        />
        <label className="zb-kept">
          <span className="zb-field-label">Age, years</span>
          <InputNumber
            className="zb-wide"
            min={0}
            max={200}
            value={intake.ageYears ?? null}
            onChange={(years) => setIntake({ ageYears: years ?? undefined })}
          />
        </label>
      </div>
      <Kept
        label="What changed before"
        value={intake.before ?? ''}
        placeholder="moved, repaired, left on, got wet"
        onKeep={(before) => setIntake({ before })}
      />
      <Checkbox
        className="zb-spaced"
        checked={intake.intermittent === true}
        onChange={(e) => setIntake({ intermittent: e.target.checked ? true : undefined })}
      >
        It comes and goes <span className="zb-dim">– a good finding then clears less</span>
      </Checkbox>
      <label className="zb-field-label" htmlFor="hazards">
        What in it can hurt
      </label>
      <Select
        id="hazards"
        mode="multiple"
        className="zb-wide"
        value={unit.hazards}
        options={HAZARDS.map((h) => ({ value: h }))}
        onChange={(hazards: Hazard[]) => change(unitAct(unit, { hazards }))}
        placeholder="Mains, valve high tension, battery only"
      />
      <Kept
        label="What else can hurt"
        value={unit.hazardNotes}
        onKeep={(hazardNotes) => change(unitAct(unit, { hazardNotes }))}
      />
    </section>
  );
}

interface KeptProps {
  readonly label: string;
  readonly value: string;
  readonly rows?: number;
  readonly placeholder?: string;
  readonly onKeep: (value: string) => void;
}

/** A field that is saved when it is left. */
function Kept({ label, value, rows, placeholder, onKeep }: KeptProps) {
  const [text, setText] = useState<string | null>(null);
  const keep = () => {
    if (text !== null && text !== value) onKeep(text);
    setText(null);
  };
  const shared = {
    value: text ?? value,
    onBlur: keep,
    'aria-label': label,
    ...(placeholder === undefined ? {} : { placeholder }),
  };
  return (
    <div className="zb-kept">
      <span className="zb-field-label">{label}</span>
      {rows === undefined ? (
        <Input {...shared} onChange={(e) => setText(e.target.value)} onPressEnter={keep} />
      ) : (
        <Input.TextArea
          {...shared}
          onChange={(e) => setText(e.target.value)}
          autoSize={{ minRows: rows, maxRows: 8 }}
        />
      )}
    </div>
  );
}
