import { describe, expect, it } from 'vitest';
import { GIVEN_UP, WorkerPool, type PooledWorker } from './pool.ts';

/** A worker whose answers are given by hand. */
class HandWorker implements PooledWorker<{ ask: (what: string) => Promise<string> }> {
  readonly asked: string[] = [];
  private readonly answers: ((text: string) => void)[] = [];
  private readonly refusals: ((error: Error) => void)[] = [];
  isTerminated = false;
  kill!: (error: Error) => void;
  readonly died = new Promise<never>((_, reject) => (this.kill = reject));
  readonly engine = {
    ask: (what: string) => {
      this.asked.push(what);
      return new Promise<string>((resolve, reject) => {
        this.answers.push(resolve);
        this.refusals.push(reject);
      });
    },
  };
  constructor() {
    this.died.catch(() => undefined);
  }
  answer(text: string): void {
    this.answers.shift()!(text);
    this.refusals.shift();
  }
  refuse(): void {
    this.answers.shift();
    this.refusals.shift()!(new Error('cannot be computed'));
  }
  terminate(): void {
    this.isTerminated = true;
  }
}

function bench(size: number) {
  const workers: HandWorker[] = [];
  const pool = new WorkerPool(() => {
    const made = new HandWorker();
    workers.push(made);
    return made;
  }, size);
  const asked = () => workers.map((w) => w.asked.join(' '));
  const settle = () => new Promise((resolve) => setTimeout(resolve));
  return { pool, workers, asked, settle };
}

describe('a pool of workers', () => {
  it('keeps one free for what is at hand, and takes the most urgent first', async () => {
    const { pool, workers, asked, settle } = bench(2);
    const done: string[] = [];
    const run = (priority: 'at hand' | 'shown' | 'later', what: string) =>
      void pool.run(priority, (e) => e.ask(what)).then(() => done.push(what));
    run('later', 'a');
    run('later', 'b');
    run('shown', 'c');
    expect(asked()).toEqual(['a']);
    run('at hand', 'd');
    run('at hand', 'e');
    expect(asked()).toEqual(['a', 'd']);
    workers[1]!.answer('d');
    await settle();
    expect(asked()).toEqual(['a', 'd e']);
    workers[1]!.answer('e');
    await settle();
    // The free one stays for what is at hand.
    expect(asked()).toEqual(['a', 'd e']);
    workers[0]!.answer('a');
    await settle();
    expect(workers.flatMap((w) => w.asked)).toEqual(expect.arrayContaining(['c']));
    expect(workers.flatMap((w) => w.asked)).not.toContain('b');
    expect(done).toEqual(['d', 'e', 'a']);
    expect(workers.length).toBe(2);
  });

  it('goes on with the same worker after work that throws, and with a new one after one that died', async () => {
    const { pool, workers, asked, settle } = bench(2);
    const first = pool.run('shown', (e) => e.ask('a'));
    workers[0]!.refuse();
    await expect(first).rejects.toThrow('cannot be computed');
    await settle();
    const second = pool.run('shown', (e) => e.ask('b'));
    expect(asked()).toEqual(['a b']);
    workers[0]!.kill(new Error('out of memory'));
    await expect(second).rejects.toThrow('out of memory');
    await settle();
    expect(workers[0]!.isTerminated).toBe(true);
    const third = pool.run('shown', (e) => e.ask('c'));
    workers[1]!.answer('done');
    expect(await third).toBe('done');
  });

  it('drops what waits and ends what runs when it is given up', async () => {
    const { pool, workers, asked, settle } = bench(2);
    const [running, waiting] = [new AbortController(), new AbortController()];
    const one = pool.run('later', (e) => e.ask('a'), running.signal);
    const two = pool.run('later', (e) => e.ask('b'), waiting.signal);
    const three = pool.run('later', (e) => e.ask('c'));
    waiting.abort();
    await expect(two).rejects.toBe(GIVEN_UP);
    expect(asked()).toEqual(['a']);
    running.abort();
    await expect(one).rejects.toBe(GIVEN_UP);
    await settle();
    expect(workers[0]!.isTerminated).toBe(true);
    expect(asked()).toEqual(['a', 'c']);
    workers[1]!.answer('c');
    await three;
    await expect(pool.run('shown', (e) => e.ask('d'), running.signal)).rejects.toBe(GIVEN_UP);
  });
});
