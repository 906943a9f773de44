import type { SearchOptions, SearchState, UnitDocument } from '@zemble/core';
import { useEffect, useState } from 'react';
import type { SearchOutcome } from './finding.ts';
import { LatestRunner } from './runner.ts';

interface Request {
  readonly document: UnitDocument;
  readonly options: SearchOptions;
}

let runner: LatestRunner<Request, SearchOutcome> | null = null;
/** One worker for all searches of the page, started with the first. */
const sharedRunner = () =>
  (runner ??= new LatestRunner<Request, SearchOutcome>('at hand', async (engine, { document, options }) =>
    engine.searchState(document, options),
  ));

export interface SearchView {
  readonly state: SearchState | null;
  /** Why it cannot be searched. */
  readonly sentence: string | null;
}

/** Where the search of a unit stands, computed in a worker; the last answer stays while a new one is made. */
export function useSearch(document: UnitDocument, options: SearchOptions): SearchView {
  const [outcome, setOutcome] = useState<SearchOutcome | null>(null);
  useEffect(() => {
    let isCurrent = true;
    sharedRunner().run({ document, options }, (answer) => {
      if (isCurrent) setOutcome(answer);
    });
    return () => {
      isCurrent = false;
    };
  }, [document, options]);
  if (!outcome) return { state: null, sentence: null };
  return outcome.ok ? { state: outcome.state, sentence: null } : { state: null, sentence: outcome.sentence };
}
