/** How soon something is computed; the first is what somebody has just entered, turned or asked. */
export const PRIORITIES = ['at hand', 'shown', 'later'] as const;
export type Priority = (typeof PRIORITIES)[number];

/** A worker as the pool needs it, so that the pool can be tried without one. */
export interface PooledWorker<Engine> {
  readonly engine: Engine;
  /** Rejects when the worker dies: no answer comes from it any more. */
  readonly died: Promise<never>;
  terminate(): void;
}

interface Waiting<Engine> {
  readonly rank: number;
  readonly start: (worker: PooledWorker<Engine>) => void;
}

/** Why something was given up. */
export const GIVEN_UP = new Error('It was given up.');

/**
 * A few workers for everything that is computed. What is at hand goes first, and finds a worker free: all but one may be
 * taken by the rest. A worker that dies, or whose work is given up, is replaced by a new one when it is needed.
 */
export class WorkerPool<Engine> {
  private readonly make: () => PooledWorker<Engine>;
  private readonly size: number;
  private readonly idle: PooledWorker<Engine>[] = [];
  private busy = 0;
  private readonly waiting: Waiting<Engine>[] = [];

  /** @param size workers at most, at least two */
  constructor(make: () => PooledWorker<Engine>, size: number) {
    this.make = make;
    this.size = size;
  }

  /**
   * Has something computed.
   *
   * @param signal gives it up: what waits is dropped, what runs ends with its worker
   * @returns the answer; rejects with what the work throws, when its worker dies, and with GIVEN_UP
   */
  run<T>(priority: Priority, work: (engine: Engine) => Promise<T>, signal?: AbortSignal): Promise<T> {
    return new Promise<T>((resolve, reject) => {
      const rank = PRIORITIES.indexOf(priority);
      const start = (worker: PooledWorker<Engine>) => {
        let isUsable = true;
        const giveUp = new Promise<never>((_, stop) =>
          signal?.addEventListener('abort', () => stop(GIVEN_UP), { once: true }),
        );
        const dies = worker.died.catch((error: unknown) => {
          isUsable = false;
          throw error;
        });
        Promise.race([work(worker.engine), dies, giveUp])
          .then(resolve, (error: unknown) => {
            if (error === GIVEN_UP) isUsable = false;
            reject(error instanceof Error ? error : new Error(String(error)));
          })
          .finally(() => {
            if (isUsable) this.idle.push(worker);
            else worker.terminate();
            this.busy -= 1;
            this.next();
          })
          .catch(() => undefined);
      };
      if (signal?.aborted) return reject(GIVEN_UP);
      const place = { rank, start };
      signal?.addEventListener(
        'abort',
        () => {
          const at = this.waiting.indexOf(place);
          if (at < 0) return;
          this.waiting.splice(at, 1);
          reject(GIVEN_UP);
        },
        { once: true },
      );
      // Behind what is as urgent, before what is less so.
      const at = this.waiting.findIndex((w) => w.rank > rank);
      this.waiting.splice(at < 0 ? this.waiting.length : at, 0, place);
      this.next();
    });
  }

  private next(): void {
    for (let first = this.waiting[0]; first; first = this.waiting[0]) {
      const mayTake = first.rank === 0 ? this.size : this.size - 1;
      if (this.busy >= mayTake) return;
      this.waiting.shift();
      this.busy += 1;
      first.start(this.idle.pop() ?? this.make());
    }
  }
}
