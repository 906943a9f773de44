import type { Proposal, SolveRequest } from '@zemble/core';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { startSearch, type Job } from '../../compute/jobs.ts';
import type { SolveOutcome } from '../../compute/engine.ts';

export type SearchState =
  | { readonly is: 'idle' }
  | { readonly is: 'running'; readonly fraction: number }
  | {
      readonly is: 'found';
      readonly request: SolveRequest;
      readonly proposals: readonly Proposal[];
      readonly isComplete: boolean;
    }
  | { readonly is: 'refused'; readonly sentence: string };

export interface Search {
  readonly state: SearchState;
  readonly start: (request: SolveRequest) => void;
  readonly cancel: () => void;
  readonly clear: () => void;
}

/** A value search in a worker, with progress and cancel; one at a time. */
export function useSearch(): Search {
  const [state, setState] = useState<SearchState>({ is: 'idle' });
  const job = useRef<Job<SolveOutcome> | null>(null);
  useEffect(() => () => job.current?.cancel(), []);
  const cancel = useCallback(() => {
    job.current?.cancel();
    job.current = null;
    setState({ is: 'idle' });
  }, []);
  const start = useCallback((request: SolveRequest) => {
    job.current?.cancel();
    setState({ is: 'running', fraction: 0 });
    const mine = startSearch(request, (fraction) => {
      if (job.current === mine) setState({ is: 'running', fraction });
    });
    job.current = mine;
    void mine.result.then(
      (outcome) => {
        if (job.current !== mine) return;
        setState(
          outcome.ok
            ? {
                is: 'found',
                request,
                proposals: outcome.answer.proposals,
                isComplete: outcome.answer.isComplete,
              }
            : { is: 'refused', sentence: outcome.sentence },
        );
      },
      (error: Error) => {
        if (job.current === mine)
          setState({ is: 'refused', sentence: `The search stopped: ${error.message}` });
      },
    );
  }, []);
  return useMemo(() => ({ state, start, cancel, clear: cancel }), [state, start, cancel]);
}
