import { useRef, useState } from 'react';
import { Keys } from './keys.tsx';
import { TypedLine } from './typed-line.tsx';

interface Props {
  readonly label: string;
  readonly placeholder: string;
  /** Takes a line; a sentence where it is refused, and the line stays. */
  readonly onEnter: (line: string) => string | null;
  readonly isFirst?: boolean;
}

/** A line is typed and taken with Enter; what is refused stays, with its reason below. */
export function LineEntry({ label, placeholder, onEnter, isFirst = false }: Props) {
  const [line, setLine] = useState('');
  const [why, setWhy] = useState<string | null>(null);
  const field = useRef<HTMLInputElement>(null);
  const enter = () => {
    const refused = onEnter(line);
    setWhy(refused);
    if (refused === null) setLine('');
    field.current?.focus();
  };
  return (
    <TypedLine
      field={field}
      label={label}
      placeholder={placeholder}
      line={line}
      onLine={(next) => {
        setLine(next);
        setWhy(null);
      }}
      onKeyDown={(event) => event.key === 'Enter' && enter()}
      isRefused={why !== null}
      note={why ?? <Keys keys="Enter" />}
      isFirst={isFirst}
      isLong
    />
  );
}
