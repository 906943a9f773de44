import type { Hazard } from '@zemble/contract';
import { describe, expect, it } from 'vitest';
import { seededRandom } from '../../base/numeric/index.ts';
import { circuitOf } from '../../testing/circuits.ts';
import { drill } from './drill.ts';
import { offeredTests, rankTests, rateTest, testsOf } from './next-test.ts';
import { checkPath, preparePath } from './path.ts';
import { entropy, posteriorOf } from './suspects.ts';
import { PATH_TEMPLATES } from './templates.ts';
import { chain } from '../../testing/chains.ts';

describe('next test', () => {
  it('rates a test by the mutual information of its outcome and the fault', () => {
    const path = preparePath(chain(4));
    const test = testsOf(path).find((t) => t.id === 'b1->b2')!;
    const exact = { wrong: 0, confused: 0, hidden: 0 };
    const posterior = posteriorOf(path, [], { pairShare: 0 });
    // Half of four equal suspects: one bit (Shannon 1948).
    expect(rateTest(path, test, posterior, exact).bits).toBeCloseTo(1, 9);
    const uneven = posteriorOf(path, [], { pairShare: 0, weights: [1, 1, 1, 5] });
    expect(rateTest(path, test, uneven, exact).bits).toBeCloseTo(entropy([2, 6]), 9);
  });

  it('prefers what tells more a minute, and follows the school that is chosen', () => {
    const path = preparePath({
      ...chain(4),
      testPoints: [
        { id: 'easy', link: ['b0', 'b1'], minutes: 1 },
        { id: 'hard', link: ['b1', 'b2'], minutes: 20 },
        { id: 'late', link: ['b2', 'b3'], minutes: 2 },
      ],
    });
    const posterior = posteriorOf(path, [], { pairShare: 0 });
    const tests = testsOf(path);
    expect(rankTests(path, tests, posterior, 'value')[0]!.test.id).toBe('easy');
    expect(rankTests(path, tests, posterior, 'trace')[0]!.test.id).toBe('easy');
    expect(rankTests(path, tests, posterior, 'inject')[0]!.test).toMatchObject({
      how: 'inject',
      injectedAt: 'b3',
    });
    expect(rankTests(path, tests, posterior, 'halve')[0]!.test.id).toBe('hard');
  });

  it('never proposes a live test on the mains side or at high tension, and says why when asked', () => {
    for (const template of PATH_TEMPLATES) {
      const path = preparePath(template.path);
      const hazards: Hazard[] = ['mains', 'switch-mode primary', 'valve high tension'];
      const { offered, forbidden } = offeredTests(path, { hazards });
      for (const test of offered) {
        if (test.how === 'check') continue;
        const block = path.indexOf(test.injectedAt ?? '') ?? path.pointNamed(test.at)!.block;
        expect(path.blocks[block]!.kind.isMainsSide, `${template.id} ${test.id}`).toBeUndefined();
      }
      for (const { reason } of forbidden) expect(reason).toMatch(/licensed|trained/);
    }
    const amplifier = preparePath(PATH_TEMPLATES.find((t) => t.id === 'stereo-amplifier')!.path);
    expect(offeredTests(amplifier, { hazards: ['mains'] }).forbidden.map((f) => f.test.id)).toContain(
      'inlet->fuse',
    );
    expect(offeredTests(amplifier, { hazards: ['mains'] }).offered.map((t) => t.id)).toContain(
      'fuse, unplugged',
    );
  });
});

describe('paths', () => {
  it('says what is wrong with one', () => {
    const problems = checkPath(
      {
        blocks: [{ id: 'a', parts: ['R9'] }, { id: 'a' }],
        links: [{ from: 'a', to: 'z', carries: 'audio' }],
        testPoints: [{ id: 't' }, { id: 'u', link: ['a', 'z2'] }],
      },
      circuitOf('R1 1k a 0'),
    );
    expect(problems.map((p) => p.message)).toEqual([
      'Path, block a: there is no part R9.',
      'Path, block a: the name is used twice.',
      'Path, link a to z: there is no block z.',
      'Path, test point t: it is on no link and no net.',
      'Path, test point u: there is no link a to z2.',
    ]);
    for (const { path } of PATH_TEMPLATES) expect(checkPath(path)).toEqual([]);
  });
});

describe('drill', () => {
  const random = () => seededRandom(1);

  it.each([4, 8, 16, 32])('needs log2 n tests for a chain of %i equal blocks', (n) => {
    const answer = drill(preparePath(chain(n)), { random: random() });
    expect(answer.foundShare).toBe(1);
    expect(answer.meanTests).toBeLessThanOrEqual(Math.log2(n) + 0.3);
  });

  it('approaches the entropy bound with unequal weights, and beats halving by count', () => {
    for (const seed of [1, 2, 3, 4, 5]) {
      const draw = seededRandom(seed);
      const priors = Array.from({ length: 16 }, () => 0.3 + 12 * draw() ** 4);
      const path = preparePath(chain(16, (i) => ({ prior: priors[i]! })));
      const value = drill(path, { random: random() });
      const halved = drill(path, { random: random(), school: 'halve' });
      expect(value.foundShare).toBe(1);
      // Shannon's bound from below, and what a greedy split of an ordered chain is good for (common practice).
      expect(value.meanTests).toBeLessThan(entropy(priors) + 0.5);
      expect(value.meanTests).toBeLessThan(halved.meanTests);
    }
  });

  it('beats halving by count and by information in minutes where points are unequally hard to reach', () => {
    const minutes = (school: 'value' | 'halve', isBlind: boolean) =>
      [1, 2, 3, 4, 5, 6].reduce((sum, seed) => {
        const draw = seededRandom(seed);
        const data = chain(16, () => ({ prior: 0.5 + 4 * draw() ** 2 }));
        const cost = data.links.map(() => Math.round(1 + 19 * draw() ** 2));
        const withPoints = {
          ...data,
          testPoints: data.links.map((l, i) => ({
            id: `t${i}`,
            link: [l.from, l.to] as [string, string],
            minutes: isBlind ? 1 : cost[i]!,
          })),
        };
        const path = preparePath(withPoints);
        // A searcher who does not look at the minutes pays them all the same.
        const paid = isBlind
          ? blindMinutes(path, cost)
          : drill(path, { random: random(), school }).meanMinutes;
        return sum + paid;
      }, 0);
    const blindMinutes = (path: ReturnType<typeof preparePath>, cost: readonly number[]) => {
      const dear = preparePath({
        ...chain(16, (i) => ({ prior: path.blocks[i]!.weight })),
        testPoints: cost.map((m, i) => ({
          id: `t${i}`,
          link: [`b${i}`, `b${i + 1}`] as [string, string],
          minutes: m,
        })),
      });
      return drill(dear, { random: random(), school: 'halve' }).meanMinutes;
    };
    expect(minutes('value', false)).toBeLessThan(minutes('halve', false));
    expect(minutes('value', false)).toBeLessThan(minutes('halve', true));
  });

  it.each(PATH_TEMPLATES.map((t) => [t.id, t] as const))('finds every single fault of %s', (_, template) => {
    const answer = drill(preparePath(template.path), { random: random(), hazards: ['mains'] });
    expect(answer.faults.filter((f) => !f.found)).toEqual([]);
    expect(answer.worstTests).toBeLessThanOrEqual(12);
  });

  it('still finds 95 of 100 faults when one answer in twenty is wrong', () => {
    const answer = drill(preparePath(chain(8)), { random: random(), wrong: 0.05, runs: 1000 });
    expect(answer.foundShare).toBeGreaterThanOrEqual(0.95);
  });
});
