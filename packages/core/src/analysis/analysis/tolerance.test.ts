import { describe, expect, it } from 'vitest';
import { resolveLayer } from '../../circuit/changes/index.ts';
import { usualTolerance } from '../../circuit/circuit/index.ts';
import { evaluateReadout } from '../readouts/index.ts';
import { circuitOf, sessionOf } from '../../testing/circuits.ts';
import { seededRandom } from '../../base/numeric/index.ts';
import { differenceSlopes, type Reading } from './sensitivity.ts';
import { spreadParts } from './spread-part.ts';
import { extremeRuns, summariseRuns, toleranceRuns, type ToleranceOptions } from './tolerance.ts';
import { worstCase } from './worst-case.ts';

const divider = circuitOf('V1 10V vcc 0\nR1 1k 5% vcc a\nR2 1k 5% a 0');
const readout = { id: 'a', name: 'a', kind: 'voltage' as const, net: 'a' };
const voltageAtA: Reading = (session) => {
  const answer = evaluateReadout(session, readout);
  return answer.ok ? answer.value : null;
};

function setUp(circuit = divider, read = voltageAtA) {
  const session = sessionOf(circuit);
  const parts = spreadParts(resolveLayer(circuit, 'marked'), usualTolerance);
  const slopes = differenceSlopes(session, parts, read);
  const spread = (options: ToleranceOptions, isWanted?: (value: number) => boolean) => {
    const runs = toleranceRuns(session, parts, [read], options);
    const worst = worstCase(session, parts, slopes, read, { starts: extremeRuns(runs, runs.values[0]!) });
    return summariseRuns(runs, runs.values[0]!, parts, slopes, worst, isWanted);
  };
  return { session, parts, read, slopes, spread };
}

describe('tolerance', () => {
  it('has the worst case, the mean and the spread of a divider by their closed forms', () => {
    const { spread } = setUp();
    const answer = spread({ runs: 20_000, random: seededRandom(1) }, (v) => Math.abs(v - 5) < 0.125);
    expect(answer.worst.high).toBeCloseTo((10 * 1.05) / 2, 9);
    expect(answer.worst.low).toBeCloseTo((10 * 0.95) / 2, 9);
    expect(answer.mean).toBeCloseTo(5, 2);
    // Two uniform deviations of 5 %, each moving the output by 2.5 V a unit: sigma = 2.5 * 0.05 * sqrt(2/3).
    expect(answer.sigma).toBeCloseTo(2.5 * 0.05 * Math.sqrt(2 / 3), 3);
    // Their difference is triangular over +-0.25 V: three quarters lie within half of it.
    expect(answer.yield).toBeCloseTo(0.75, 2);
    expect(answer.contributions.map((c) => c.share)).toEqual([
      expect.closeTo(0.5, 6),
      expect.closeTo(0.5, 6),
    ]);
    expect(answer.percentiles.p50).toBeCloseTo(5, 2);
    expect(answer.min).toBeGreaterThanOrEqual(answer.worst.low);
    expect(answer.max).toBeLessThanOrEqual(answer.worst.high);
  });

  it('leaves the session as it was, and repeats itself with the same seed', () => {
    const { session, read, spread } = setUp();
    const once = spread({ runs: 500, random: seededRandom(7) });
    expect(read(session)).toBeCloseTo(5, 12);
    expect(spread({ runs: 500, random: seededRandom(7) })).toEqual(once);
    expect(spread({ runs: 500, random: seededRandom(8) }).mean).not.toBe(once.mean);
  });

  it('lets matched parts deviate together: a divider of a matched pair does not move', () => {
    const circuit = {
      ...divider,
      parts: divider.parts.map((p) => (p.kind === 'resistor' ? { ...p, matched: 'pair' } : p)),
    };
    const answer = setUp(circuit).spread({ runs: 200, random: seededRandom(1) });
    expect(answer.sigma).toBeLessThan(1e-9);
    // The pair moves as one in the worst case and in the shares, too.
    expect(answer.worst.high - answer.worst.low).toBeLessThan(1e-9);
    expect(answer.contributions).toEqual([{ ref: 'R1', share: expect.any(Number), together: ['R1', 'R2'] }]);
  });

  it('puts the limits of a normal spread at three sigma', () => {
    const { sigma } = setUp().spread({
      runs: 20_000,
      random: seededRandom(3),
      distribution: 'normal',
    });
    expect(sigma / ((2.5 * 0.05 * Math.SQRT2) / 3)).toBeCloseTo(1, 1);
  });

  it('has sensitivities that equal the derivative of the closed form', () => {
    const { session, read } = setUp();
    const [s1, s2] = differenceSlopes(
      session,
      [
        { ref: 'R1', value: 1000 },
        { ref: 'R2', value: 1000 },
      ],
      read,
    );
    expect(s1).toBeCloseTo(-2.5, 4);
    expect(s2).toBeCloseTo(2.5, 4);
  });
});
