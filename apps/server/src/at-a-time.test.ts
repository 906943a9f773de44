import { describe, expect, it } from 'vitest';
import { AtATime } from './at-a-time.ts';

describe('what is heavy', () => {
  it('runs so many at a time, the others in their turn, and one beyond those is refused', async () => {
    const gate = new AtATime(2, 3);
    let running = 0;
    let most = 0;
    const done: number[] = [];
    const ends: (() => void)[] = [];
    const work = (i: number) => async () => {
      running += 1;
      most = Math.max(most, running);
      await new Promise<void>((resolve) => ends.push(resolve));
      running -= 1;
      done.push(i);
    };
    const runs = [0, 1, 2, 3, 4].map((i) => gate.run(work(i)));
    await expect(gate.run(work(5))).rejects.toMatchObject({ code: 'too-many', status: 429 });
    for (let i = 0; i < 5; i += 1) {
      ends.shift()!();
      await new Promise((resolve) => setImmediate(resolve));
    }
    await Promise.all(runs);
    expect([most, done]).toEqual([2, [0, 1, 2, 3, 4]]);
    // One that fails gives its place back.
    await expect(gate.run(() => Promise.reject(new Error('no')))).rejects.toThrow('no');
    expect(await gate.run(() => Promise.resolve('yes'))).toBe('yes');
  });
});
