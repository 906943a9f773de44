import type { UnitDocument } from '@halfsplit/core';
import { createContext, use } from 'react';

/** Planned values that are tried but not accepted: only what shows them follows while one is turned. */
export interface Trial {
  /** By designator. */
  readonly trial: ReadonlyMap<string, number>;
  readonly setTrial: (trial: ReadonlyMap<string, number>) => void;
  /** The unit with what is tried on top. */
  readonly tried: UnitDocument;
}

export const NO_TRIAL: ReadonlyMap<string, number> = new Map();
export const TrialContext = createContext<Trial | null>(null);

export function useTrial(): Trial {
  const value = use(TrialContext);
  if (!value) throw new Error('There is no unit around this component.');
  return value;
}
