import type { KeyboardEventHandler, ReactNode, Ref } from 'react';
import styles from './typed-line.module.css';

interface Props {
  readonly label: string;
  readonly placeholder: string;
  readonly line: string;
  readonly onLine: (line: string) => void;
  readonly onKeyDown: KeyboardEventHandler<HTMLInputElement>;
  /** What was entered cannot be taken: the note says why. */
  readonly isRefused: boolean;
  /** What the line is understood as, or why it is refused, or what can be typed. */
  readonly note: ReactNode;
  readonly isFirst?: boolean;
  /** Lines are long here: in smaller type. */
  readonly isLong?: boolean;
  readonly field?: Ref<HTMLInputElement>;
  /** Below the note. */
  readonly children?: ReactNode;
}

/** A field in which a line is typed, with what it is understood as below it. */
export function TypedLine({
  label,
  placeholder,
  line,
  onLine,
  onKeyDown,
  isRefused,
  note,
  isFirst = false,
  isLong = false,
  field,
  children,
}: Props) {
  return (
    <div className="zb-entry">
      <input
        ref={field}
        className={isLong ? styles.long : styles.field}
        value={line}
        onChange={(event) => onLine(event.target.value)}
        onKeyDown={onKeyDown}
        placeholder={placeholder}
        aria-label={label}
        aria-invalid={isRefused}
        autoFocus={isFirst}
        spellCheck={false}
        autoComplete="off"
        autoCapitalize="off"
      />
      <p className={`zb-entry-note${isRefused ? ' zb-refused' : ''}`} role={isRefused ? 'alert' : undefined}>
        {note}
      </p>
      {children}
    </div>
  );
}
