import { createContext, use } from 'react';

/** Planned values that are tried but not accepted, by designator. */
export interface Trial {
  readonly trial: ReadonlyMap<string, number>;
  readonly setTrial: (trial: ReadonlyMap<string, number>) => void;
}

export const NO_TRIAL: ReadonlyMap<string, number> = new Map();
export const TrialContext = createContext<Trial>({ trial: NO_TRIAL, setTrial: () => {} });
export const useTrial = (): Trial => use(TrialContext);
