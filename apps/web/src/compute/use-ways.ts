import type { MainsHz } from '@zemble/contract';
import { useMemo } from 'react';
import { LatestRunner, pool } from './runner.ts';
import { useLatest, type Latest } from './use-latest.ts';
import type { Offered, WayOutcome, WayRequest, WaysRequest } from './ways.ts';

const offers = new LatestRunner<WaysRequest, readonly Offered[]>('shown', async (engine, request) =>
  engine.ways(request),
);
const makes = new LatestRunner<WayRequest, WayOutcome>('shown', async (engine, request) =>
  engine.way(request),
);

/** What offers itself at a place, computed in a worker; null where nothing is chosen. */
export function useWays(
  circuit: WaysRequest['circuit'],
  ref: string | null,
  net: string | null,
  mainsHz: MainsHz,
): Latest<WaysRequest, readonly Offered[]> {
  const request = useMemo(
    () => (ref === null && net === null ? null : { circuit, chosen: { ref, net, mainsHz } }),
    [circuit, ref, net, mainsHz],
  );
  return useLatest(offers, request);
}

/** What comes of a way of doing with its answers, computed in a worker; the last answer stays meanwhile. */
export const useWay = (request: WayRequest | null): Latest<WayRequest, WayOutcome> =>
  useLatest(makes, request);

/** What comes of a way, once: a worker that fails is a sentence. */
export const wayOf = (request: WayRequest): Promise<WayOutcome> =>
  pool
    .run('shown', async (engine) => engine.way(request))
    .catch((error: unknown) => ({
      ok: false,
      sentence: error instanceof Error ? error.message : String(error),
    }));
