import { createContext, use } from 'react';
import type { Analysis } from '../compute/engine.ts';

/** What is computed of the unit, and which readout's response it draws. */
export interface Analysed {
  /** Null until it is computed for the first time. */
  readonly analysis: Analysis | null;
  /** Why there is nothing of the circuit as it is now: what is shown then is of an earlier one. */
  readonly why: string | null;
  /** Readout whose response is drawn. */
  readonly readoutId: string | null;
  readonly setReadoutId: (id: string | null) => void;
}

/**
 * What is computed of the unit as it is in the record, for whoever asks when something is done; nothing while a value is tried. Who
 * asks by this is not drawn anew when it changes.
 */
export const LatestAnalysisContext = createContext<{ readonly current: Analysis | null }>({ current: null });
export const useLatestAnalysis = (): { readonly current: Analysis | null } => use(LatestAnalysisContext);

export const AnalysedContext = createContext<Analysed>({
  analysis: null,
  why: null,
  readoutId: null,
  setReadoutId: () => {},
});
export const useAnalysed = (): Analysed => use(AnalysedContext);
