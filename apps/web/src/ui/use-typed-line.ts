import { useState } from 'react';

/** A line that is being typed; one that was refused is no more as soon as it changes. */
export function useTypedLine(initial: string | (() => string) = '') {
  const [line, setText] = useState(initial);
  const [isRefused, setIsRefused] = useState(false);
  const setLine = (next: string) => {
    setText(next);
    setIsRefused(false);
  };
  return { line, setLine, isRefused, refuse: () => setIsRefused(true) };
}
