import { proxy, type Remote } from 'comlink';
import type { BoardProposal, SolveRequest } from '@zemble/core';
import { SPREAD_RUNS, SPREAD_SEEDS, spreadBand, type DeepAnswer, type DeepRequest } from './deep.ts';
import type { SolveOutcome } from './engine.ts';
import type { BoardRequest } from './building.ts';
import type { Engine } from './engine.worker.ts';
import type { PartsRequest, PlainEntry } from './finding.ts';
import { pool } from './runner.ts';

/** Something that was asked for, takes its time, tells how far it is, and can be given up. */
export interface Job<T> {
  readonly result: Promise<T>;
  readonly cancel: () => void;
}

type OnProgress = (fraction: number) => void;

/** Has shares of one thing computed beside each other; it is as far as the hindmost of them. */
function startShares<T>(
  shares: readonly ((
    engine: Remote<Engine>,
    onProgress: (fraction: number) => Promise<void>,
  ) => Promise<T>)[],
  onProgress: OnProgress,
): Job<T[]> {
  const end = new AbortController();
  const fractions = shares.map(() => 0);
  const results = shares.map((share, i) =>
    pool.run(
      'shown',
      (engine) =>
        share(
          engine,
          proxy((fraction: number) => {
            fractions[i] = fraction;
            onProgress(Math.min(...fractions));
            return Promise.resolve();
          }),
        ),
      end.signal,
    ),
  );
  return { result: Promise.all(results), cancel: () => end.abort() };
}

function startOne<T>(
  work: (engine: Remote<Engine>, onProgress: (fraction: number) => Promise<void>) => Promise<T>,
  onProgress: OnProgress,
): Job<T> {
  const { result, cancel } = startShares([work], onProgress);
  return { result: result.then(([answer]) => answer!), cancel };
}

/** Starts a value search; cancelled, its result is rejected. */
export const startSearch = (request: SolveRequest, onProgress: OnProgress): Job<SolveOutcome> =>
  startOne<SolveOutcome>(async (engine, told) => engine.search(request, told), onProgress);

/** Starts the search for a board. */
export const startBoard = (request: BoardRequest, onProgress: OnProgress): Job<BoardProposal> =>
  startOne<BoardProposal>(async (engine, told) => engine.board(request, told), onProgress);

/** Starts an analysis that is made when it is asked for; a spread in two shares. */
export function startDeep(request: DeepRequest, onProgress: OnProgress): Job<DeepAnswer> {
  if (request.kind !== 'spread') return startOne((engine, told) => engine.deep(request, told), onProgress);
  const { result, cancel } = startShares(
    SPREAD_SEEDS.map(
      (seed) => (engine, told) => engine.spread(request, seed, SPREAD_RUNS / SPREAD_SEEDS.length, told),
    ),
    onProgress,
  );
  return { result: result.then(spreadBand), cancel };
}

/** Shares in which a fault dictionary is made. */
const DICTIONARY_SHARES = 2;

/** Starts a fault dictionary. */
export function startDictionary(
  request: Omit<PartsRequest, 'share'>,
  onProgress: OnProgress,
): Job<readonly PlainEntry[]> {
  const { result, cancel } = startShares(
    Array.from(
      { length: DICTIONARY_SHARES },
      (_, index) => (engine, told) =>
        engine.dictionary({ ...request, share: { index, of: DICTIONARY_SHARES } }, told),
    ),
    onProgress,
  );
  return { result: result.then((lists) => lists.flat()), cancel };
}
