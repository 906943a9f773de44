import {
  formatQuantity,
  parseValue,
  unknownFromChange,
  CHANGE_KINDS,
  type ChangeKind,
  partsInPlace,
  type Part,
  type QuantityKind,
  type ValueFromChange,
} from '@zemble/core';
import { Input, Modal, Select } from 'antd';
import { useState } from 'react';
import { newId } from '../../api/new-id.ts';
import { useUnitContext } from '../../unit/unit-context.tsx';
import styles from './measure.module.css';

interface KindWords {
  readonly label: string;
  readonly added: string;
  readonly seen: string;
  readonly unknown: string;
  readonly addedKind: QuantityKind;
  readonly example: readonly [added: string, before: string, after: string];
}

const WORDS: Readonly<Record<ChangeKind, KindWords>> = {
  'parallel capacitor, rate': {
    label: 'A capacitor in parallel slowed a rate',
    added: 'Capacitor added',
    seen: 'Rate',
    unknown: 'The capacitor that was there',
    addedKind: 'capacitor',
    example: ['220n', '6.1Hz', '1.4Hz'],
  },
  'parallel resistor, rate': {
    label: 'A resistor in parallel sped up a rate',
    added: 'Resistor added',
    seen: 'Rate',
    unknown: 'The resistor that was there',
    addedKind: 'resistor',
    example: ['100k', '1.4Hz', '2.1Hz'],
  },
  'series resistor, level': {
    label: 'A resistor in series lowered a level',
    added: 'Resistor in series',
    seen: 'Level',
    unknown: 'Input resistance after it',
    addedKind: 'resistor',
    example: ['47k', '1V', '0.68V'],
  },
  'load resistor, level': {
    label: 'A load lowered a level',
    added: 'Load',
    seen: 'Level',
    unknown: 'Source resistance before it',
    addedKind: 'resistor',
    example: ['600', '1V', '0.75V'],
  },
};

/** An unknown part from what a known one changed, with its error; it can be taken as a part's reading. */
export function FromChangeDialog({ onClose }: { onClose: () => void }) {
  const { unit, document, change } = useUnitContext();
  const [kind, setKind] = useState<ChangeKind>(CHANGE_KINDS[0]);
  const [texts, setTexts] = useState({ added: '', before: '', after: '' });
  const [ref, setRef] = useState<string | null>(null);
  const words = WORDS[kind];
  const value = (text: string, quantity?: QuantityKind) => {
    if (text.trim() === '') return null;
    const parsed = parseValue(text, { purpose: 'reading', ...(quantity ? { kind: quantity } : {}) });
    return parsed.ok ? parsed.readings[0].value : Number.NaN;
  };
  const values = {
    added: value(texts.added, words.addedKind),
    before: value(texts.before),
    after: value(texts.after),
  };
  const isFull = Object.values(values).every((v) => v !== null && !Number.isNaN(v));
  const found = isFull
    ? unknownFromChange({ kind, added: values.added!, before: values.before!, after: values.after! })
    : null;
  const partKind = words.addedKind === 'capacitor' ? 'capacitor' : 'resistor';
  const candidates = document.circuit.parts.filter((p: Part) => p.kind === partKind);
  const take = () => {
    const place = partsInPlace(unit).find((p) => p.part.ref === ref);
    if (place && found)
      change({
        type: 'add-reading',
        id: newId(),
        ...place.of,
        seen: place.version,
        value: found.value,
        condition: 'from a change',
        between: {
          low: Math.max(0, found.low),
          ...(Number.isFinite(found.high) ? { high: found.high } : {}),
        },
        takenAt: new Date().toISOString(),
      });
    onClose();
  };
  const field = (name: 'added' | 'before' | 'after', label: string, example: string) => (
    <label className={styles.changeField}>
      <span>{label}</span>
      <Input
        value={texts[name]}
        placeholder={example}
        autoFocus={name === 'added'}
        status={Number.isNaN(values[name]) ? 'error' : ''}
        onChange={(e) => setTexts({ ...texts, [name]: e.target.value })}
      />
    </label>
  );
  return (
    <Modal
      open
      title="A value from a change"
      okText={ref === null ? 'Done' : `Take it for ${ref}`}
      okButtonProps={{ disabled: ref !== null && !found }}
      onOk={take}
      onCancel={onClose}
    >
      <p className="zb-hint">
        Add a known part, and say what it changed: the part that cannot be measured follows from that.
      </p>
      <Select<ChangeKind>
        className={styles.changeKind}
        value={kind}
        onChange={setKind}
        options={CHANGE_KINDS.map((k) => ({ value: k, label: WORDS[k].label }))}
        aria-label="What was done"
      />
      <div className={styles.changeFields}>
        {field('added', words.added, words.example[0])}
        {field('before', `${words.seen} before`, words.example[1])}
        {field('after', `${words.seen} after`, words.example[2])}
      </div>
      <p role="status" className={styles.changeAnswer}>
        {isFull ? answerWords(found, words, partKind) : ''}
      </p>
      {found && kind.startsWith('parallel') && (
        <label className={styles.changePart}>
          <span>It is</span>
          <Select
            allowClear
            placeholder="no part of the sheet"
            value={ref}
            onChange={(next: string | undefined) => setRef(next ?? null)}
            options={candidates.map((p) => ({ value: p.ref, label: p.ref }))}
            aria-label="Part that it is"
          />
        </label>
      )}
    </Modal>
  );
}

/** An error that reaches so many times further to one side is said as two ends. */
const LOPSIDED = 1.2;

function answerWords(
  found: ValueFromChange | null,
  words: KindWords,
  kind: 'capacitor' | 'resistor',
): string {
  if (!found) return 'It cannot have changed that way: look at the three numbers again.';
  const unit = kind === 'capacitor' ? 'F' : 'ohm';
  const text = (value: number) => formatQuantity(value, unit, { digits: 2 });
  const [below, above] = [found.value - found.low, found.high - found.value];
  const error = !Number.isFinite(above)
    ? `, above ${text(found.low)} and open to the other side`
    : above > LOPSIDED * below
      ? `, ${text(found.low)} to ${text(found.high)}`
      : ` ± ${text(found.sigma)}`;
  return `${words.unknown}: ${formatQuantity(found.value, unit, { digits: 3 })}${error}. ${found.law[0]!.toUpperCase()}${found.law.slice(1)}.`;
}
