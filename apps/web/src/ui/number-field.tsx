import { InputNumber } from 'antd';
import { useState } from 'react';

interface NumberFieldProps {
  readonly value: number | null;
  readonly min: number;
  readonly max: number;
  readonly placeholder?: string;
  readonly size?: 'small';
  /** What it is, where no label says so. */
  readonly 'aria-label'?: string;
  /** Told once the number is done: with Enter, an arrow, or when the field is left. Null when it was emptied. */
  readonly onDone: (value: number | null) => void;
}

/** A number that is taken when it is done, not with every digit. */
export function NumberField({ value, onDone, ...rest }: NumberFieldProps) {
  const [typed, setTyped] = useState<{ readonly value: number | null; readonly of: number | null } | null>(
    null,
  );
  // What was typed on top of another value is void when that value changes elsewhere.
  const shown = typed && typed.of === value ? typed.value : value;
  const done = (next: number | null) => {
    setTyped(null);
    if (next !== value) onDone(next);
  };
  return (
    <InputNumber
      {...rest}
      value={shown}
      onChange={(next) => setTyped({ value: next, of: value })}
      onStep={done}
      onPressEnter={() => done(shown)}
      onBlur={() => done(shown)}
    />
  );
}
