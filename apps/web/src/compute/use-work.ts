import type { UnitDocument, Work, WorkWish } from '@zemble/core';
import { useEffect, useState } from 'react';
import type { WorkRequest } from './building.ts';
import { LatestRunner } from './runner.ts';

let runner: LatestRunner<WorkRequest, Work> | null = null;
/** One worker for the bench work of the page, started with the first. */
const sharedRunner = () =>
  (runner ??= new LatestRunner<WorkRequest, Work>('shown', async (engine, request) => engine.work(request)));

/** The bench work of a unit, computed in a worker; the last answer stays while a new one is made. Null before the first. */
export function useWork(document: UnitDocument, wish: WorkWish): Work | null {
  const [work, setWork] = useState<Work | null>(null);
  // The same work is wished for as long as the wish says the same.
  const said = JSON.stringify(wish);
  useEffect(() => {
    let isCurrent = true;
    sharedRunner().run({ document, wish: JSON.parse(said) as WorkWish }, (answer) => {
      if (isCurrent) setWork(answer);
    });
    return () => {
      isCurrent = false;
    };
  }, [document, said]);
  return work;
}
