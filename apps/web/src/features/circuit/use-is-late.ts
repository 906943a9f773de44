import { useEffect, useState } from 'react';

/** What is done sooner needs no word, ms. */
const SOON_MS = 300;

/** True once something has been so for a while. */
export function useIsLate(isSo: boolean): boolean {
  const [isLate, setIsLate] = useState(false);
  useEffect(() => {
    if (!isSo) return;
    const timer = setTimeout(() => setIsLate(true), SOON_MS);
    return () => {
      clearTimeout(timer);
      setIsLate(false);
    };
  }, [isSo]);
  return isLate;
}
