import { describe, expect, it } from 'vitest';
import { resolveLayer } from '../../circuit/changes/index.ts';
import { usualTolerance } from '../../circuit/circuit/index.ts';
import { evaluateReadout } from '../readouts/index.ts';
import { circuitOf, sessionOf, type Unnamed } from '../../testing/circuits.ts';
import { seededRandom } from '../../base/numeric/index.ts';
import { differenceSlopes, type Reading } from './sensitivity.ts';
import { spreadParts } from './spread-part.ts';
import { extremeRuns, summariseRuns, toleranceRuns } from './tolerance.ts';
import { worstCase } from './worst-case.ts';

function spreadOf(lines: string, readout: Unnamed, runs = 2000) {
  const circuit = circuitOf(lines);
  const read: Reading = (session) => {
    const a = evaluateReadout(session, { ...readout, id: 'x', name: 'X' });
    return a.ok ? a.value : null;
  };
  const session = sessionOf(circuit);
  const parts = spreadParts(resolveLayer(circuit, 'marked'), usualTolerance);
  const slopes = differenceSlopes(session, parts, read);
  const made = toleranceRuns(session, parts, [read], { runs, random: seededRandom(5) });
  const worst = worstCase(session, parts, slopes, read, { starts: extremeRuns(made, made.values[0]!) });
  return {
    nominal: read(session)!,
    ...summariseRuns(made, made.values[0]!, parts, slopes, worst, undefined),
  };
}

describe('the worst case of what has its extreme inside the tolerances', () => {
  // At resonance the tank's impedance, and the notch's depth, have a slope of nought: both signs make it worse.
  const TANK = 'G1 1V in 0\nR1 100k in out\nL1 100m 5% dcr=50 out 0\nC1 253.3n 5% out 0';
  const gain = { kind: 'gain', from: 'in', to: 'out', frequencyHz: 1000 } as const;

  it('of a tank: the peak itself is the high end, a corner the low one', () => {
    const { worst, min, max, nominal, explained, note } = spreadOf(TANK, gain);
    expect(worst.high).toBeGreaterThanOrEqual(max);
    expect(worst.low).toBeLessThanOrEqual(min);
    // Both up or both down by 5 % detune it by 5 %: |Z| by its closed form, R1 at its own end.
    const w = 2000 * Math.PI;
    const db = (k: number, r1: number) => {
      const [l, c] = [0.1 * k, 253.3e-9 * k];
      const y = { re: 50 / (50 ** 2 + (w * l) ** 2), im: w * c - (w * l) / (50 ** 2 + (w * l) ** 2) };
      return -20 * Math.log10(Math.hypot(1 + r1 * y.re, r1 * y.im));
    };
    const corner = Math.min(db(1.05, 105e3), db(0.95, 105e3));
    expect(worst.low).toBeLessThanOrEqual(corner + 1e-6);
    expect(worst.low).toBeGreaterThan(corner - 3);
    expect(worst.high).toBeGreaterThan(nominal - 1e-9);
    // Shares of first order mean nothing here, and that is said.
    expect(explained).toBeLessThan(0.7);
    expect(note).toBeDefined();
  });

  it('of a notch of two T: never milder than any of 2,000 samples, at both ends', () => {
    const lines = `G1 1V in 0
      R1 10k 2% in a
      R2 10k 2% a out
      C3 31.83n 5% a 0
      C1 15.915n 5% in b
      C2 15.915n 5% b out
      R3 5k 2% b 0
      R4 10M 1% out 0`;
    const { worst, min, max } = spreadOf(lines, gain);
    expect(worst.low).toBeLessThanOrEqual(min);
    expect(worst.high).toBeGreaterThanOrEqual(max);
    expect(worst.low).toBeLessThan(-60);
  });
});

describe('the worst case of a box', () => {
  it('of a divider with a resonance is that of a bounded minimum search, whatever the number of runs', () => {
    const lines = `G1 1V in 0\nR1 1k 5% in a\nL1 100m 10% dcr=20 a o\nC1 253.3n 10% a o\nR2 1k 5% o 0`;
    const gain = { kind: 'gain', from: 'in', to: 'o', frequencyHz: 1000 } as const;
    // scipy.optimize.minimize (L-BFGS-B, many starts) over the closed form: R1 1050, R2 950, L 110 mH, C 230.08 nF.
    const w = 2000 * Math.PI;
    const db = (r1: number, r2: number, l: number, c: number) => {
      const y = { re: 20 / (400 + (w * l) ** 2), im: w * c - (w * l) / (400 + (w * l) ** 2) };
      const d = y.re ** 2 + y.im ** 2;
      return -20 * Math.log10(Math.hypot(r1 + r2 + y.re / d, -y.im / d) / r2);
    };
    const truth = db(1050, 950, 0.11, 230.08e-9);
    for (const runs of [50, 2000]) {
      const { worst } = spreadOf(lines, gain, runs);
      expect(Math.abs(worst.low - truth)).toBeLessThan(0.01);
    }
  });
});
