import { wrap, type Remote } from 'comlink';
import type { Engine } from './engine.worker.ts';
import { WorkerPool, type PooledWorker, type Priority } from './pool.ts';

/** Fewer would let what is looked at wait for what comes later; more would each take memory for nothing. */
const FEWEST = 4;
const MOST = 6;

function startEngine(): PooledWorker<Remote<Engine>> {
  const worker = new Worker(new URL('./engine.worker.ts', import.meta.url), { type: 'module' });
  const died = new Promise<never>((_, reject) => {
    worker.onerror = ({ message }) => reject(new Error(`The worker died: ${message || 'no reason given'}`));
    worker.onmessageerror = () => reject(new Error('The worker sent what cannot be read.'));
  });
  // Whoever does not wait for it is not asked to.
  died.catch(() => undefined);
  return { engine: wrap<Engine>(worker), died, terminate: () => worker.terminate() };
}

/** All workers of this page. */
export const pool = new WorkerPool(
  startEngine,
  Math.min(MOST, Math.max(FEWEST, navigator.hardwareConcurrency + 2)),
);

/** What came of a request: the answer, or why there is none. */
export type Outcome<Answer> =
  { readonly ok: true; readonly answer: Answer } | { readonly ok: false; readonly why: string };

/**
 * Has one kind of thing computed, the latest request only: while one is computed, newer ones replace each other and the last
 * of them is computed next. A request that fails is answered with the reason; the next one is computed as ever.
 */
export class LatestRunner<Request, Answer> {
  private readonly priority: Priority;
  private readonly compute: (engine: Remote<Engine>, request: Request) => Promise<Answer>;
  private waiting: { request: Request; answer: (outcome: Outcome<Answer>) => void } | null = null;
  private isBusy = false;

  constructor(priority: Priority, compute: (engine: Remote<Engine>, request: Request) => Promise<Answer>) {
    this.priority = priority;
    this.compute = compute;
  }

  run(request: Request, answer: (outcome: Outcome<Answer>) => void): void {
    this.waiting = { request, answer };
    if (!this.isBusy) void this.drain();
  }

  private async drain(): Promise<void> {
    this.isBusy = true;
    for (let job = this.waiting; job; job = this.waiting) {
      this.waiting = null;
      const { request, answer } = job;
      answer(await this.outcomeOf(request));
    }
    this.isBusy = false;
  }

  private async outcomeOf(request: Request): Promise<Outcome<Answer>> {
    try {
      return { ok: true, answer: await pool.run(this.priority, (engine) => this.compute(engine, request)) };
    } catch (error) {
      console.error(error);
      return { ok: false, why: error instanceof Error ? error.message : String(error) };
    }
  }
}
