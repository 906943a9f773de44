import type { UnitResource } from '@zemble/contract';
import type { Problem, UnitDocument } from '@zemble/core';
import { createContext, use } from 'react';
import type { Entry } from '../api/act.ts';

/** What every stage of one unit works with. What is chosen, tried and computed has contexts of its own. */
export interface UnitContextValue {
  readonly unit: UnitResource;
  /** The unit as it is, what is not yet on the server included. */
  readonly document: UnitDocument;
  readonly problems: readonly Problem[];
  /** Those of them that the layer shown has: what it asks too much of, and what its changes leave half done. */
  readonly warnings: readonly Problem[];
  /** Enters something: shown at once, saved as soon as the server has it; null for nothing. */
  readonly change: (entry: Entry | null) => void;
}

export const UnitContext = createContext<UnitContextValue | null>(null);

export function useUnitContext(): UnitContextValue {
  const value = use(UnitContext);
  if (!value) throw new Error('There is no unit around this component.');
  return value;
}
