import { describe, expect, it } from 'vitest';
import { seededRandom } from '../../base/numeric/index.ts';
import { circuitOf } from '../../testing/circuits.ts';
import { noClaims, rightAbove, searchPlanted } from '../../testing/claims.ts';

/** Small units of every sort: a stage, a pair of stages, a complementary follower, a valve, an amplifier with its feedback. */
const UNITS = [
  'V1 12V vcc 0\nR1 220k vcc b\nR2 47k b 0\nQ1 2N3904 c b e\nR3 4k7 vcc c\nR4 1k e 0\nC1 1u in b\nC2 10u polarised c out\nR5 100k out 0\nG1 10mV in 0',
  'V1 9V vcc 0\nR1 470k vcc b\nR2 100k b 0\nQ1 2N3904 c b e\nR3 10k vcc c\nR4 1k5 e 0\nQ2 2N3906 o c vq\nR5 330 vcc vq\nR6 2k2 o 0\nC1 100n in b\nC2 22u polarised e 0\nR7 100k in 0',
  'V1 24V vcc 0\nR1 10k vcc t\nD1 1N4148 t m\nD2 1N4148 m u\nR2 10k u 0\nQ1 2N3904 vcc t x\nQ2 2N3906 0 u y\nR3 22 x o\nR4 22 o y\nC1 470u polarised o out\nR5 1k out 0',
  'V1 250V ht 0\nR1 100k ht a\nVT1 12AX7 a g k\nR2 1k5 k 0\nR3 1M g 0\nC1 100n a out\nR4 470k out 0\nC2 22u polarised k 0',
  'V1 15V vp 0\nV2 15V 0 vm\nU1 TL072 plus=in minus=f out=o vplus=vp vminus=vm\nR1 100k in 0\nR2 10k o f\nR3 1k f 0\nC1 1u in x\nR4 10k o out\nR5 22k out 0\nR6 47k x 0',
].map((lines) => circuitOf(lines));

describe('claims about parts, on a bench that shares no code with this one', () => {
  it('are right as often as they say', () => {
    const random = seededRandom(11);
    const found = noClaims();
    for (let round = 0; round < 2; round += 1)
      for (const unit of UNITS) expect(searchPlanted(unit, random, found)).toBe(true);
    const [nine, ninetyNine] = [rightAbove(found, 0.9), rightAbove(found, 0.99)];
    expect(found.count).toBeGreaterThan(200);
    expect(nine.right / nine.count, `${nine.right} of ${nine.count}`).toBeGreaterThanOrEqual(0.88);
    expect(
      ninetyNine.right / ninetyNine.count,
      `${ninetyNine.right} of ${ninetyNine.count}`,
    ).toBeGreaterThanOrEqual(0.98);
    expect(found.first / found.count).toBeGreaterThanOrEqual(0.88);
    expect(found.amongThree / found.count).toBeGreaterThanOrEqual(0.95);
    expect(found.measurements / found.count).toBeLessThanOrEqual(3.9);
    expect(found.firstDespite / found.withWrong).toBeGreaterThanOrEqual(0.78);
  }, 300_000);
});
