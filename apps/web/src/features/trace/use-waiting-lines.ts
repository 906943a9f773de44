import { useEffect, useState } from 'react';

const keyOf = (unitId: string) => `zemble-waiting-lines-${unitId}`;

/** What is kept; null where nothing can be. */
function kept(unitId: string): readonly string[] | null {
  try {
    const text = localStorage.getItem(keyOf(unitId));
    return text === null ? [] : text.split('\n');
  } catch {
    return null;
  }
}

/**
 * Lines of a pasted list that could not be read: they wait to be mended, kept in the browser until they are, the same in every page of
 * the unit. Where nothing can be kept they wait as long as the page is open.
 */
export function useWaitingLines(unitId: string) {
  const [waiting, setWaiting] = useState(() => kept(unitId) ?? []);
  useEffect(() => {
    const onStorage = (event: StorageEvent) => {
      if (event.key === keyOf(unitId)) setWaiting(kept(unitId) ?? []);
    };
    window.addEventListener('storage', onStorage);
    return () => window.removeEventListener('storage', onStorage);
  }, [unitId]);
  // Another page may have kept or dropped some meanwhile: what is kept now is what is changed.
  const change = (next: (now: readonly string[]) => readonly string[]) => {
    const lines = next(kept(unitId) ?? waiting);
    setWaiting(lines);
    try {
      if (lines.length === 0) localStorage.removeItem(keyOf(unitId));
      else localStorage.setItem(keyOf(unitId), lines.join('\n'));
    } catch {
      // They wait in this page.
    }
  };
  return {
    waiting,
    add: (lines: readonly string[]) => change((now) => [...new Set([...now, ...lines])]),
    drop: (line: string) => change((now) => now.filter((other) => other !== line)),
  };
}
