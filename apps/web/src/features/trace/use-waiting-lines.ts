import { useState } from 'react';

const keyOf = (unitId: string) => `zemble-waiting-lines-${unitId}`;

function kept(unitId: string): readonly string[] {
  const text = localStorage.getItem(keyOf(unitId));
  return text === null ? [] : text.split('\n');
}

/** Lines of a pasted list that could not be read: they wait to be mended, kept in the browser until they are. */
export function useWaitingLines(unitId: string) {
  const [waiting, setWaiting] = useState(() => kept(unitId));
  const keep = (next: readonly string[]) => {
    setWaiting(next);
    try {
      if (next.length === 0) localStorage.removeItem(keyOf(unitId));
      else localStorage.setItem(keyOf(unitId), next.join('\n'));
    } catch {
      // Where nothing can be kept they wait as long as the page is open.
    }
  };
  return {
    waiting,
    add: (lines: readonly string[]) => keep([...new Set([...waiting, ...lines])]),
    drop: (line: string) => keep(waiting.filter((other) => other !== line)),
  };
}
