import { describe, expect, it } from 'vitest';
import { UnitChanges } from './changes.ts';

async function collect(changes: UnitChanges, unit: string, gone: AbortSignal): Promise<number[]> {
  const seen: number[] = [];
  for await (const version of changes.follow(unit, gone)) seen.push(version);
  return seen;
}
const turn = () => new Promise((resolve) => setImmediate(resolve));

describe('changes of a unit', () => {
  it('reach everybody who follows it, in order, and nobody else', async () => {
    const changes = new UnitChanges();
    const gone = new AbortController();
    const [first, second, other] = ['a', 'a', 'b'].map((unit) => collect(changes, unit, gone.signal));
    await turn();
    for (const version of [1, 2, 3]) changes.tell('a', version);
    await turn();
    gone.abort();
    expect(await first).toEqual([1, 2, 3]);
    expect(await second).toEqual([1, 2, 3]);
    expect(await other).toEqual([]);
  });

  it('end when the server does', async () => {
    const changes = new UnitChanges();
    const following = collect(changes, 'a', new AbortController().signal);
    await turn();
    changes.tell('a', 7);
    changes.end();
    expect(await following).toEqual([7]);
  });
});
