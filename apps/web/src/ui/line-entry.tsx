import { useRef, useState } from 'react';
import styles from './line-entry.module.css';

interface Props {
  readonly label: string;
  readonly placeholder: string;
  /** Takes a line; a sentence where it is refused, and the line stays. */
  readonly onEnter: (line: string) => string | null;
  readonly isFirst?: boolean;
}

/** A line is typed and taken with Enter; what is refused stays, with its reason below. */
export function LineEntry({ label, placeholder, onEnter, isFirst = false }: Props) {
  const [text, setText] = useState('');
  const [why, setWhy] = useState<string | null>(null);
  const field = useRef<HTMLInputElement | null>(null);
  const enter = () => {
    const refused = onEnter(text);
    setWhy(refused);
    if (refused === null) setText('');
    field.current?.focus();
  };
  return (
    <div className={styles.entry}>
      <input
        ref={field}
        value={text}
        onChange={(event) => {
          setText(event.target.value);
          setWhy(null);
        }}
        onKeyDown={(event) => event.key === 'Enter' && enter()}
        placeholder={placeholder}
        aria-label={label}
        autoFocus={isFirst}
        spellCheck={false}
      />
      {why !== null && (
        <p className="hs-refused" role="alert">
          {why}
        </p>
      )}
    </div>
  );
}
