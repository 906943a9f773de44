import { describe, expect, it } from 'vitest';
import { command, divider, unitFile } from './testing/command.ts';

describe('search', () => {
  const chain = (evidence: object[] = [], hazards: string[] = []) => ({
    format: 'zemble/unit',
    version: 1,
    unit: { hazards },
    circuit: { ground: '0', parts: [] },
    path: {
      blocks: [
        { id: 'a', kind: 'stage' },
        { id: 'b', kind: 'stage' },
        { id: 'c', kind: 'stage' },
        { id: 'd', kind: 'stage' },
      ],
      links: [
        { from: 'a', to: 'b', carries: 'audio' },
        { from: 'b', to: 'c', carries: 'audio' },
        { from: 'c', to: 'd' },
      ],
    },
    evidence,
  });

  it('names suspects with their reasons, and the next test by information a minute', async () => {
    const file = await unitFile('search.json', chain([{ at: 'b->c', saw: 'good' }]));
    const { answer } = await command('suspects', file);
    const suspects = answer.suspects as { id: string; probability: number; why: string }[];
    expect(
      suspects
        .slice(0, 2)
        .map((s) => s.id)
        .sort(),
    ).toEqual(['c', 'd']);
    expect(suspects.reduce((sum, s) => sum + s.probability, 0)).toBeGreaterThan(0.99);
    const [next] = answer.next as { test: string; bits: number; minutes: number; why: string }[];
    expect(next).toMatchObject({ test: 'c->d', minutes: 1, why: expect.stringContaining('bit in 1 min') });
    expect(next!.bits).toBeGreaterThan(0.5);
  });

  it('says what cannot be used, and what contradicts', async () => {
    const file = await unitFile(
      'odd.json',
      chain([
        { at: 'c->d', saw: 'good' },
        { at: 'a->b', saw: 'none' },
        { at: 'zz', saw: 'good' },
      ]),
    );
    const { answer } = await command('suspects', file);
    expect(answer.contradictions).toEqual([expect.stringContaining('cannot both be right')]);
    expect(answer.ignored).toEqual([{ at: 'zz', reason: 'there is no point, net or block "zz"' }]);
  });

  it('drills every fault in log2 n tests, and with wrong answers repeatably', async () => {
    const file = await unitFile('drill.json', chain());
    const { answer } = await command('drill', file);
    expect(answer).toMatchObject({ meanTests: 2, meanMinutes: 2, worstTests: 2, foundShare: 1 });
    const one = await command('drill', file, '--fault', 'c');
    expect(one.answer.faults).toMatchObject([{ id: 'c', found: true }]);
    const wrong = ['drill', file, '--wrong', '0.05', '--runs', '200', '--seed', '3'];
    expect((await command(...wrong)).answer).toEqual((await command(...wrong)).answer);
    expect((await command('drill', file, '--fault', 'zz')).code).toBe(2);
    expect((await command('drill', file, '--wrong', '0.7')).code).toBe(2);
  });

  it('refuses a unit without a path, and a path that leads nowhere', async () => {
    expect((await command('suspects', await unitFile('none.json', divider))).code).toBe(2);
    const broken = { ...chain(), path: { blocks: [{ id: 'a' }], links: [{ from: 'a', to: 'q' }] } };
    const { code, sentence } = await command('suspects', await unitFile('broken.json', broken));
    expect([code, sentence]).toEqual([2, 'Path, link a to q: there is no block q.']);
  });
});
