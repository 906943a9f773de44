import { proxy, wrap, type Remote } from 'comlink';
import type { SolveRequest } from '@halfsplit/core';
import { SPREAD_RUNS, SPREAD_SEEDS, spreadBand, type DeepAnswer, type DeepRequest } from './deep.ts';
import type { SolveOutcome } from './engine.ts';
import type { PartsRequest, PlainEntry } from './finding.ts';
import type { Engine } from './engine.worker.ts';

interface Started {
  readonly worker: Worker;
  readonly engine: Remote<Engine>;
  /** Rejected when the worker dies: no answer comes from it any more. */
  readonly died: Promise<never>;
}

function startEngine(): Started {
  const worker = new Worker(new URL('./engine.worker.ts', import.meta.url), { type: 'module' });
  const died = new Promise<never>((_, reject) => {
    worker.onerror = ({ message }) => reject(new Error(`The worker died: ${message || 'no reason given'}`));
    worker.onmessageerror = () => reject(new Error('The worker sent what cannot be read.'));
  });
  // Whoever does not wait for it is not asked to.
  died.catch(() => undefined);
  return { worker, engine: wrap<Engine>(worker), died };
}

/**
 * Runs one kind of analysis in a worker of its own, the latest request only: while one is computed, newer ones replace
 * each other and the last of them is computed next. A request that fails is given up, with the worker that it was in; the
 * next one gets a new worker.
 */
export class LatestRunner<Request, Answer> {
  private started: Started | null = null;
  private readonly compute: (engine: Remote<Engine>, request: Request) => Promise<Answer>;
  private waiting: { request: Request; answer: (answer: Answer) => void } | null = null;
  private isBusy = false;

  constructor(compute: (engine: Remote<Engine>, request: Request) => Promise<Answer>) {
    this.compute = compute;
  }

  run(request: Request, answer: (answer: Answer) => void): void {
    this.waiting = { request, answer };
    if (!this.isBusy) void this.drain();
  }

  private async drain(): Promise<void> {
    this.isBusy = true;
    for (let job = this.waiting; job; job = this.waiting) {
      this.waiting = null;
      this.started ??= startEngine();
      const { worker, engine, died } = this.started;
      try {
        job.answer(await Promise.race([this.compute(engine, job.request), died]));
      } catch (error) {
        console.error(error);
        worker.terminate();
        this.started = null;
      }
    }
    this.isBusy = false;
  }
}

export interface Job<T> {
  readonly result: Promise<T>;
  readonly cancel: () => void;
}

/** Starts a value search in a worker of its own; cancelling ends the worker, and the result never comes. */
export function startSearch(
  request: SolveRequest,
  onProgress: (fraction: number) => void,
): Job<SolveOutcome> {
  const { worker, engine, died } = startEngine();
  const search = engine.search(
    request,
    proxy((fraction: number) => Promise.resolve(onProgress(fraction))),
  );
  const result = Promise.race([search, died]).finally(() => worker.terminate());
  return { result, cancel: () => worker.terminate() };
}

/** Starts an analysis that is made when asked for, in a worker of its own; a spread in two. */
export function startDeep(request: DeepRequest, onProgress: (fraction: number) => void): Job<DeepAnswer> {
  if (request.kind === 'spread') return startSpread(request, onProgress);
  const { worker, engine, died } = startEngine();
  const deep = engine.deep(
    request,
    proxy((fraction: number) => Promise.resolve(onProgress(fraction))),
  );
  const result = Promise.race([deep, died]).finally(() => worker.terminate());
  return { result, cancel: () => worker.terminate() };
}

/** Half the runs in each of two workers. Where one fails, its reason is the answer. */
function startSpread(request: DeepRequest, onProgress: (fraction: number) => void): Job<DeepAnswer> {
  const engines = SPREAD_SEEDS.map(() => startEngine());
  const fractions = SPREAD_SEEDS.map(() => 0);
  const cancel = () => engines.forEach((e) => e.worker.terminate());
  const shares = engines.map(({ engine }, i) =>
    engine.spread(
      request,
      SPREAD_SEEDS[i]!,
      SPREAD_RUNS / SPREAD_SEEDS.length,
      proxy((fraction: number) => {
        fractions[i] = fraction;
        onProgress(Math.min(...fractions));
        return Promise.resolve();
      }),
    ),
  );
  const result = Promise.all(shares)
    .then(spreadBand)
    .catch((error: Error) => ({
      kind: 'spread' as const,
      ok: false,
      sentence: error.message,
      series: [],
    }));
  return { result: result.finally(cancel), cancel };
}

/** Half of a fault dictionary in each of two workers. */
export function startDictionary(
  request: Omit<PartsRequest, 'share'>,
  onProgress: (fraction: number) => void,
): Job<readonly PlainEntry[]> {
  const engines = [startEngine(), startEngine()];
  const fractions = engines.map(() => 0);
  const cancel = () => engines.forEach((e) => e.worker.terminate());
  const shares = engines.map(({ engine }, index) =>
    engine.dictionary(
      { ...request, share: { index, of: engines.length } },
      proxy((fraction: number) => {
        fractions[index] = fraction;
        onProgress(Math.min(...fractions));
        return Promise.resolve();
      }),
    ),
  );
  return {
    result: Promise.all(shares)
      .then((lists) => lists.flat())
      .finally(cancel),
    cancel,
  };
}
