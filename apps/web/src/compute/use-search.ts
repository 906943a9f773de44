import type { SearchOptions, SearchState, UnitDocument } from '@zemble/core';
import { useMemo } from 'react';
import type { SearchOutcome } from './finding.ts';
import { LatestRunner } from './runner.ts';
import { useLatest } from './use-latest.ts';

interface Request {
  readonly document: UnitDocument;
  readonly options: SearchOptions;
}

const searches = new LatestRunner<Request, SearchOutcome>('at hand', async (engine, { document, options }) =>
  engine.searchState(document, options),
);

export interface SearchView {
  readonly state: SearchState | null;
  /** Why it cannot be searched. */
  readonly sentence: string | null;
}

/** Where the search of a unit stands, computed in a worker; the last answer stays while a new one is made. */
export function useSearch(document: UnitDocument, options: SearchOptions): SearchView {
  const request = useMemo(() => ({ document, options }), [document, options]);
  const { made, why } = useLatest(searches, request);
  if (why !== null) return { state: null, sentence: `The search stopped: ${why}` };
  if (!made) return { state: null, sentence: null };
  const { answer } = made;
  return answer.ok ? { state: answer.state, sentence: null } : { state: null, sentence: answer.sentence };
}
