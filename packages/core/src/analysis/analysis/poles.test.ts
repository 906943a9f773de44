import { EVD, Matrix } from 'ml-matrix';
import { describe, expect, it } from 'vitest';
import { eigenvalues } from '../../base/numeric/index.ts';
import { circuitOf, seeded, sessionOf } from '../../testing/circuits.ts';
import { naturalFrequencies } from './poles.ts';

const polesOf = (lines: string) => naturalFrequencies(sessionOf(circuitOf(lines)));

describe('eigenvalues', () => {
  it('equal those of a linear algebra library on random matrices', () => {
    for (let seed = 1; seed <= 40; seed += 1) {
      const random = seeded(seed);
      const n = 2 + (seed % 14);
      const values = Float64Array.from({ length: n * n }, () => random() * 2 - 1);
      const reference = new EVD(Matrix.from1DArray(n, n, [...values]));
      const sort = (list: readonly (readonly number[])[]) =>
        [...list].sort((a, b) => a[0]! - b[0]! || a[1]! - b[1]!);
      const wanted = sort(reference.realEigenvalues.map((re, i) => [re, reference.imaginaryEigenvalues[i]!]));
      const found = sort(eigenvalues(n, values)!.map((e) => [e.re, e.im]));
      for (const [re, im] of found)
        expect(Math.min(...wanted.map((w) => Math.hypot(w[0]! - re!, w[1]! - im!)))).toBeLessThan(1e-8);
    }
  });
});

describe('natural frequencies', () => {
  it('has the one pole of R and C', () => {
    const { poles, stable } = polesOf('G1 1V in 0\nR1 10k in a\nC1 10n a 0');
    expect(poles).toHaveLength(1);
    expect(poles[0]!.re).toBeCloseTo(-1e4, 4);
    expect(stable).toBe(true);
  });

  it('has the frequency and the Q of R, L and C', () => {
    const { poles } = polesOf('G1 1V in 0\nR1 25 in a\nL1 10m a b\nC1 100n b 0');
    expect(poles).toHaveLength(2);
    expect(poles[0]!.frequencyHz).toBeCloseTo(1 / (2 * Math.PI * Math.sqrt(1e-9)), 3);
    expect(poles[0]!.q).toBeCloseTo(Math.sqrt(10e-3 / 100e-9) / 25, 5);
    expect(poles[0]!.im).toBeCloseTo(-poles[1]!.im, 4);
  });

  it('puts Q = 1/(3 - K) into a filter of equal R and C (Sallen and Key 1955)', () => {
    const filter = (rf: number) =>
      polesOf(
        `G1 1V in 0\nR1 10k in a\nR2 10k a b\nC1 10n a o\nC2 10n b 0\nU1 plus=b minus=m out=o vplus=vp vminus=vm AOL=1e7 GBW=1e10\nV1 15V vp 0\nV2 15V 0 vm\nR3 10k m 0\nR4 ${rf} o m`,
      );
    const at = (k: number) => filter((k - 1) * 1e4).poles.find((p) => p.im > 0)!;
    for (const k of [1.586, 2, 2.5]) {
      expect(at(k).q).toBeCloseTo(1 / (3 - k), 2);
      expect(at(k).frequencyHz / (1 / (2 * Math.PI * 1e-4))).toBeCloseTo(1, 3);
    }
    expect(at(1.586).q).toBeCloseTo(Math.SQRT1_2, 2);
  });

  const ladder = (rf: string) =>
    `V1 15V vp 0\nV2 15V 0 vm\nU1 plus=0 minus=m out=o vplus=vp vminus=vm AOL=1e7 GBW=1e9\nR4 ${rf} o m\nC1 10n o a\nR1 10k a 0\nC2 10n a b\nR2 10k b 0\nC3 10n b c\nR3 10k c m`;

  it('says that a phase-shift oscillator of three equal sections starts above a gain of 29, at 1/(2 pi RC sqrt 6) (handbook)', () => {
    expect(polesOf(ladder('285k')).stable).toBe(true);
    const over = polesOf(ladder('291k'));
    expect(over.stable).toBe(false);
    const unstable = over.poles.find((p) => p.re > 0)!;
    expect(unstable.frequencyHz / (1 / (2 * Math.PI * 1e-4 * Math.sqrt(6)))).toBeCloseTo(1, 2);
  });

  it('says that a Wien bridge starts above a gain of 3, at 1/(2 pi RC) (handbook)', () => {
    const wien = (rf: string) =>
      `V1 15V vp 0\nV2 15V 0 vm\nU1 plus=p minus=m out=o vplus=vp vminus=vm AOL=1e7 GBW=1e9\nR1 10k o x\nC1 10n x p\nR2 10k p 0\nC2 10n p 0\nR3 10k m 0\nR4 ${rf} o m`;
    expect(polesOf(wien('19.9k')).stable).toBe(true);
    const over = polesOf(wien('20.1k'));
    expect(over.stable).toBe(false);
    expect(over.poles.find((p) => p.re > 0)!.frequencyHz / (1 / (2 * Math.PI * 1e-4))).toBeCloseTo(1, 2);
  });
});
