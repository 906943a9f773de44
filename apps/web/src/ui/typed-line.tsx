import type { ClipboardEvent, KeyboardEventHandler, ReactNode, Ref } from 'react';
import styles from './typed-line.module.css';

interface Props {
  readonly label: string;
  readonly placeholder: string;
  readonly line: string;
  readonly onLine: (line: string) => void;
  readonly onKeyDown: KeyboardEventHandler<HTMLInputElement>;
  /** Several lines were pasted; without it they become one. */
  readonly onLines?: (text: string) => void;
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
  onLines,
  isRefused,
  note,
  isFirst = false,
  isLong = false,
  field,
  children,
}: Props) {
  const paste = (event: ClipboardEvent) => {
    const text = event.clipboardData.getData('text');
    if (!onLines || !/[\r\n]/.test(text.trim())) return;
    event.preventDefault();
    onLines(text);
  };
  return (
    <div className="zb-entry">
      <input
        ref={field}
        className={isLong ? styles.long : styles.field}
        value={line}
        onChange={(event) => onLine(event.target.value)}
        onKeyDown={onKeyDown}
        onPaste={paste}
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
