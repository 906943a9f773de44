import { createContext, use } from 'react';
import type { Analysis } from '../compute/engine.ts';

/** What is computed of the unit, and which readout's response it draws. */
export interface Analysed {
  /** Null until it is computed for the first time. */
  readonly analysis: Analysis | null;
  /** Readout whose response is drawn. */
  readonly readoutId: string | null;
  readonly setReadoutId: (id: string | null) => void;
}

export const AnalysedContext = createContext<Analysed>({
  analysis: null,
  readoutId: null,
  setReadoutId: () => {},
});
export const useAnalysed = (): Analysed => use(AnalysedContext);
