import { describe, expect, it } from 'vitest';
import { usualTolerance } from '../meter/index.ts';
import { evaluateReadout } from '../readouts/index.ts';
import { circuitOf } from '../testing/circuits.ts';
import { BenchModel } from './bench-model.ts';
import { differenceSlopes } from './sensitivity.ts';
import { seededRandom, spreadParts, toleranceOf } from './tolerance.ts';

const divider = circuitOf('V1 10V vcc 0\nR1 1k 5% vcc a\nR2 1k 5% a 0');
const readout = { id: 'a', name: 'a', kind: 'voltage' as const, net: 'a' };

function setUp(circuit = divider) {
  const model = new BenchModel(circuit, 'marked');
  const parts = spreadParts(circuit, model, usualTolerance);
  const read = () => {
    const answer = evaluateReadout(model, readout);
    return answer.ok ? answer.value : null;
  };
  return { model, parts, read, slopes: differenceSlopes(model, parts, read) };
}

describe('tolerance', () => {
  it('has the worst case, the mean and the spread of a divider by their closed forms', () => {
    const { model, parts, read, slopes } = setUp();
    const answer = toleranceOf(model, parts, read, slopes, (v) => Math.abs(v - 5) < 0.125, {
      runs: 20_000,
      random: seededRandom(1),
    });
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

  it('leaves the model as it was, and repeats itself with the same seed', () => {
    const { model, parts, read, slopes } = setUp();
    const once = toleranceOf(model, parts, read, slopes, undefined, { runs: 500, random: seededRandom(7) });
    expect(read()).toBeCloseTo(5, 12);
    expect(
      toleranceOf(model, parts, read, slopes, undefined, { runs: 500, random: seededRandom(7) }),
    ).toEqual(once);
    expect(
      toleranceOf(model, parts, read, slopes, undefined, { runs: 500, random: seededRandom(8) }).mean,
    ).not.toBe(once.mean);
  });

  it('lets matched parts deviate together: a divider of a matched pair does not move', () => {
    const circuit = {
      ...divider,
      parts: divider.parts.map((p) => (p.kind === 'resistor' ? { ...p, matched: 'pair' } : p)),
    };
    const { model, parts, read, slopes } = setUp(circuit);
    expect(
      toleranceOf(model, parts, read, slopes, undefined, { runs: 200, random: seededRandom(1) }).sigma,
    ).toBeLessThan(1e-9);
  });

  it('puts the limits of a normal spread at three sigma', () => {
    const { model, parts, read, slopes } = setUp();
    const { sigma } = toleranceOf(model, parts, read, slopes, undefined, {
      runs: 20_000,
      random: seededRandom(3),
      distribution: 'normal',
    });
    expect(sigma / ((2.5 * 0.05 * Math.SQRT2) / 3)).toBeCloseTo(1, 1);
  });

  it('has sensitivities that equal the derivative of the closed form', () => {
    const { model, read } = setUp();
    const [s1, s2] = differenceSlopes(
      model,
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
