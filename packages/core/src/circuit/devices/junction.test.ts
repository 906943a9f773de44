import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { THERMAL_VOLTAGE } from './constants.ts';
import {
  criticalVoltage,
  depletion,
  diodeLaw,
  junctionCurvature,
  limitJunction,
  type CurrentSlope,
  type Depletion,
} from './junction.ts';

const law = (volt: number, is = 1e-14, n = 1): CurrentSlope => {
  const out = { current: 0, slope: 0 };
  diodeLaw(volt, is, n, out);
  return out;
};
const layer = (volt: number, m = 0.4): Depletion => {
  const out = { charge: 0, capacitance: 0 };
  depletion(volt, 10e-12, 0.7, m, 0.5, out);
  return out;
};

describe('the diode law (Shockley 1949)', () => {
  it('takes kT/q ln 10 more volt for ten times the current: 59.6 mV at 300.15 K', () => {
    const decade = THERMAL_VOLTAGE * Math.LN10;
    expect(decade).toBeCloseTo(0.05956, 4);
    expect(law(0.6 + decade).current / law(0.6).current).toBeCloseTo(10, 6);
  });

  it('saturates at -IS, is zero at zero, and never overflows', () => {
    expect(law(0).current).toBe(0);
    expect(law(-1).current).toBeCloseTo(-1e-14, 20);
    expect(Number.isFinite(law(1e4).current)).toBe(true);
  });

  it('has the slope of its current everywhere, also on the straight line above', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -1, max: 4, noNaN: true }),
        fc.double({ min: 1, max: 2, noNaN: true }),
        (v, n) => {
          const step = 1e-7;
          const slope = (law(v + step, 1e-14, n).current - law(v - step, 1e-14, n).current) / (2 * step);
          expect(Math.abs(law(v, 1e-14, n).slope - slope)).toBeLessThanOrEqual(
            1e-5 * Math.abs(slope) + 1e-12,
          );
        },
      ),
    );
  });
});

describe('a depletion layer (Sze)', () => {
  it('has CJ0 without voltage and CJ0 (1 - v/VJ)^-M below', () => {
    expect(layer(0).capacitance).toBeCloseTo(10e-12, 20);
    expect(layer(0).charge).toBeCloseTo(0, 25);
    expect(layer(-5).capacitance / (10e-12 * (1 + 5 / 0.7) ** -0.4)).toBeCloseTo(1, 9);
  });

  it('has the capacitance as the slope of its charge, across the edge too', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -20, max: 1, noNaN: true }),
        fc.double({ min: 0.2, max: 0.6, noNaN: true }),
        (v, m) => {
          const step = 1e-5;
          const slope = (layer(v + step, m).charge - layer(v - step, m).charge) / (2 * step);
          expect(layer(v, m).capacitance / slope).toBeCloseTo(1, 4);
        },
      ),
    );
  });
});

describe('steps of a junction', () => {
  it('are left alone below the critical voltage, and never overshoot above', () => {
    const critical = criticalVoltage(1e-14, 1);
    expect(critical).toBeCloseTo(THERMAL_VOLTAGE * Math.log(THERMAL_VOLTAGE / (Math.SQRT2 * 1e-14)), 12);
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: -5, max: 50, noNaN: true }),
        (from, to) => {
          const used = limitJunction(to, from, 1, critical);
          if (to <= critical) expect(used).toBe(to);
          else {
            expect(used).toBeLessThanOrEqual(to);
            expect(used).toBeLessThan(2);
          }
        },
      ),
    );
  });

  it('leave an error that goes with half the step over N kT/q, and with that of the layer where the junction blocks', () => {
    expect(junctionCurvature(0.6, 0.61, 1)).toBeCloseTo(0.01 / (2 * THERMAL_VOLTAGE), 9);
    // A charge that goes with the root of the voltage: C' / C is half of one over it.
    expect(junctionCurvature(-3, -2, 1)).toBeCloseTo(1 / (4 * 2.7), 9);
  });
});
