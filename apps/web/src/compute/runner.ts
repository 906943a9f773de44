import { proxy, wrap, type Remote } from 'comlink';
import type { SolveRequest } from '@halfsplit/core';
import type { Analysis, AnalysisRequest, SolveOutcome } from './engine.ts';
import type { Engine } from './engine.worker.ts';

function startEngine(): { worker: Worker; engine: Remote<Engine> } {
  const worker = new Worker(new URL('./engine.worker.ts', import.meta.url), { type: 'module' });
  return { worker, engine: wrap<Engine>(worker) };
}

/**
 * Runs analyses in a worker, the latest request only: while one is computed, newer ones replace each other and the
 * last of them is computed next.
 */
export class AnalysisRunner {
  private readonly engine = startEngine().engine;
  private waiting: { request: AnalysisRequest; answer: (analysis: Analysis) => void } | null = null;
  private isBusy = false;

  run(request: AnalysisRequest, answer: (analysis: Analysis) => void): void {
    this.waiting = { request, answer };
    if (!this.isBusy) void this.drain();
  }

  private async drain(): Promise<void> {
    this.isBusy = true;
    try {
      for (let job = this.waiting; job; job = this.waiting) {
        this.waiting = null;
        job.answer(await this.engine.analyse(job.request));
      }
    } finally {
      this.isBusy = false;
    }
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
  const { worker, engine } = startEngine();
  const result = engine
    .search(
      request,
      proxy((fraction: number) => Promise.resolve(onProgress(fraction))),
    )
    .finally(() => worker.terminate());
  return { result, cancel: () => worker.terminate() };
}
