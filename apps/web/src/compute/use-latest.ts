import { useEffect, useState } from 'react';
import type { LatestRunner, Outcome } from './runner.ts';

/** What was computed last, and whether it is of what is asked now. */
export interface Latest<Request, Answer> {
  /** The last answer that came, of this request or an earlier one; null before the first. */
  readonly made: { readonly of: Request; readonly answer: Answer } | null;
  /** Whether the answer is of the request of now: what is not is shown as of an earlier state. */
  readonly isCurrent: boolean;
  /** Why the request of now has no answer; null while it is worked on, and when it has one. */
  readonly why: string | null;
}

/**
 * Has the latest request computed in a worker. The last answer stays while a new one is made; a worker that fails is an answer too,
 * with its reason.
 *
 * @param request the same object as long as the same is asked; null asks nothing
 */
export function useLatest<Request, Answer>(
  runner: Pick<LatestRunner<Request, Answer>, 'run'>,
  request: Request | null,
): Latest<Request, Answer> {
  const [made, setMade] = useState<Latest<Request, Answer>['made']>(null);
  const [failed, setFailed] = useState<{ readonly of: Request; readonly why: string } | null>(null);
  useEffect(() => {
    if (request === null) return;
    let isHere = true;
    runner.run(request, (outcome: Outcome<Answer>) => {
      if (!isHere) return;
      if (outcome.ok) setMade({ of: request, answer: outcome.answer });
      else setFailed({ of: request, why: outcome.why });
    });
    return () => {
      isHere = false;
    };
  }, [runner, request]);
  const isCurrent = made !== null && made.of === request;
  return { made, isCurrent, why: !isCurrent && failed !== null && failed.of === request ? failed.why : null };
}
