import type { BoardProposal, BoardWish, UnitDocument } from '@zemble/core';
import { useCallback, useEffect, useRef, useState } from 'react';
import { startBoard, type Job } from '../../compute/jobs.ts';

export type ProposalState =
  | { readonly is: 'idle' }
  | { readonly is: 'running'; readonly fraction: number }
  | { readonly is: 'refused'; readonly why: string };

/** The search for a board in a worker, with progress; one at a time. */
export function useProposal(onFound: (proposal: Extract<BoardProposal, { ok: true }>) => void) {
  const [state, setState] = useState<ProposalState>({ is: 'idle' });
  const job = useRef<Job<BoardProposal> | null>(null);
  /** What is done with a proposal is what is to be done by then, and not when it was asked for. */
  const found = useRef(onFound);
  useEffect(() => {
    found.current = onFound;
  });
  useEffect(() => () => job.current?.cancel(), []);
  const cancel = useCallback(() => {
    job.current?.cancel();
    job.current = null;
    setState({ is: 'idle' });
  }, []);
  const start = (document: UnitDocument, wish: Omit<BoardWish, 'mayGoOn' | 'onProgress'>) => {
    job.current?.cancel();
    setState({ is: 'running', fraction: 0 });
    const mine = startBoard({ document, wish }, (fraction) => {
      if (job.current === mine) setState({ is: 'running', fraction });
    });
    job.current = mine;
    void mine.result.then(
      (proposal) => {
        if (job.current !== mine) return;
        setState(proposal.ok ? { is: 'idle' } : { is: 'refused', why: proposal.why });
        if (proposal.ok) found.current(proposal);
      },
      (error: Error) => {
        if (job.current === mine) setState({ is: 'refused', why: `The search stopped: ${error.message}` });
      },
    );
  };
  return { state, start, cancel };
}
