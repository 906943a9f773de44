import {
  followed,
  parseValue,
  usualValues,
  withField,
  type Calculation,
  type DeskValues,
  type Drawer,
  type Following,
  type Given,
} from '@zemble/core';
import { Button, Dropdown, Input } from 'antd';
import { useId, useState } from 'react';
import { useNavigate } from 'react-router';
import { useUnits } from '../../api/use-units.ts';
import { valueText } from '../../ui/value-text.ts';
import styles from './desk.module.css';

interface BlockProps {
  readonly calculation: Calculation;
  readonly drawer: Drawer;
}

/** What is being typed, where, and why it cannot be so. */
interface Typed {
  readonly id: string;
  readonly text: string;
  readonly sentence: string | null;
}

/** One calculation: every field can be typed, and the others follow. */
export function CalculationBlock({ calculation, drawer }: BlockProps) {
  const [given, setGiven] = useState<DeskValues>(() => usualValues(calculation));
  const [typed, setTyped] = useState<Typed | null>(null);
  const titleId = useId();
  const answer = followed(calculation, given);
  const type = (field: Given | Following, text: string) => {
    const parsed = parseValue(plainOf(text, field), {
      kind: field.quantity,
      // Digits printed on a part are a code; in a field of the Desk that is for them, too.
      purpose: field.quantity === 'capacitor' || field.quantity === 'resistor' ? 'marking' : 'reading',
    });
    if (!parsed.ok) {
      setTyped({ id: field.id, text, sentence: text.trim() === '' ? null : parsed.problem.message });
      return;
    }
    const set = withField(calculation, given, field.id, parsed.readings[0].value);
    const next = set.ok ? followed(calculation, set.given) : null;
    const sentence = !set.ok ? set.sentence : next?.ok === false ? next.sentence : null;
    setTyped({ id: field.id, text, sentence });
    if (set.ok && sentence === null) setGiven(set.given);
  };
  const row = (field: Given | Following) => {
    const isTyped = typed?.id === field.id;
    const value = answer.ok ? answer.values[field.id] : given[field.id];
    const moved = 'moves' in field ? calculation.given.find((f) => f.id === field.moves) : undefined;
    return (
      <label key={field.id} className={'moves' in field ? `${styles.row} ${styles.follows}` : styles.row}>
        <span>{field.label}</span>
        <Input
          size="small"
          className="zb-mono"
          value={isTyped ? typed.text : valueText(value, field.quantity, field.unit)}
          status={isTyped && typed.sentence !== null ? 'error' : ''}
          maxLength={40}
          onFocus={(event) => event.target.select()}
          onChange={(event) => type(field, event.target.value)}
          onBlur={() => setTyped(null)}
          onPressEnter={() => setTyped(null)}
        />
        <span className="zb-dim">{moved ? `moves ${moved.label}` : ''}</span>
      </label>
    );
  };
  return (
    <section className={styles.block} aria-labelledby={titleId}>
      <div className={styles.head}>
        <h2 id={titleId} title={calculation.source}>
          {calculation.title}
        </h2>
        {calculation.line && answer.ok && <TakeTo line={calculation.line(answer.values)} />}
      </div>
      {calculation.given.map(row)}
      {calculation.following.map(row)}
      <div className={styles.says} role="status">
        {typed !== null && typed.sentence !== null && <p className="zb-refused">{typed.sentence}</p>}
        {!answer.ok && <p className="zb-refused">{answer.sentence}</p>}
        {answer.ok && calculation.says?.(answer.values, drawer).map((s) => <p key={s}>{s}</p>)}
      </div>
    </section>
  );
}

/** A level typed with the name of its reference is a level all the same. */
const plainOf = (text: string, { unit }: Given | Following): string =>
  unit === undefined ? text : text.replace(new RegExp(`\\s*${unit}\\s*$`, 'i'), '');

/** Units that parts can be taken into, those that were worked on last. */
const MOST_OFFERED = 30;

/** Takes the parts into a unit, as a change that waits there to be completed. */
function TakeTo({ line }: { readonly line: string }) {
  const { units: bench = [] } = useUnits({ place: 'bench', limit: MOST_OFFERED });
  const navigate = useNavigate();
  if (bench.length === 0) return null;
  return (
    <Dropdown
      trigger={['click']}
      menu={{
        items: bench.map((u) => ({ key: u.id, label: u.name })),
        onClick: ({ key }) => void navigate(`/units/${key}/rework`, { state: { line } }),
      }}
    >
      <Button size="small" type="text">
        Take into a unit
      </Button>
    </Dropdown>
  );
}
