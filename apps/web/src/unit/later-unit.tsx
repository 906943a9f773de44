import { use, useDeferredValue, type ReactNode } from 'react';
import { UnitContext } from './unit-context.tsx';

/**
 * What is inside follows the unit a moment later, so that what was just entered is answered at once and the large panels
 * come after. Its children should be memoised: as long as their props stay they wait for the later unit.
 */
export function LaterUnit({ children }: { children: ReactNode }) {
  const later = useDeferredValue(use(UnitContext));
  return <UnitContext value={later}>{children}</UnitContext>;
}
