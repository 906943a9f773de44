import type { Drawer, UnitDocument, Work, WorkWish } from '@zemble/core';
import { useMemo } from 'react';
import type { WorkRequest } from './building.ts';
import { LatestRunner } from './runner.ts';
import { useLatest, type Latest } from './use-latest.ts';

const works = new LatestRunner<WorkRequest, Work>('shown', async (engine, request) => engine.work(request));

/** The bench work of a unit, computed in a worker; the last answer stays while a new one is made. */
export function useWork(
  document: UnitDocument,
  wish: Omit<WorkWish, 'drawer'>,
  drawer: Drawer,
): Latest<WorkRequest, Work> {
  // The same work is wished for as long as the wish says the same.
  const said = JSON.stringify(wish);
  const request = useMemo(
    () => ({ document, wish: { ...(JSON.parse(said) as WorkWish), drawer } }),
    [document, said, drawer],
  );
  return useLatest(works, request);
}
