import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cautionsOf, dischargeOf, SAFE_V, WORKING_V } from './hazards.ts';

describe('discharge', () => {
  it('takes RC ln(V/V0), the textbook law of a discharging capacitor', () => {
    // 100 uF at 325 V through 10 kohm: tau 1 s, down to 12 V in ln(325/12) = 3.3 s, 10.6 W at first, 5.3 J.
    const d = dischargeOf({ farad: 100e-6, volt: 325, ohm: 10_000 });
    expect(d.seconds).toBeCloseTo(Math.log(325 / 12), 9);
    expect(d.peakWatt).toBeCloseTo(10.5625, 9);
    expect(d.joule).toBeCloseTo(5.28125, 9);
    expect(d.sentence).toBe(
      '5.3 J: through 10 kΩ it falls to 12 V in 4 s; take a resistor of 7 W with insulated clips, then measure before you touch.',
    );
  });

  it('chooses a resistor that does not spark, and never leaves a dangerous voltage', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1e-6, max: 10, noNaN: true }),
        fc.double({ min: 5, max: 600, noNaN: true }),
        (farad, volt) => {
          const d = dischargeOf({ farad, volt });
          const left = volt * Math.exp(-d.seconds / (d.ohm * farad));
          expect(left).toBeLessThanOrEqual(Math.max(WORKING_V, 1) * (1 + 1e-9));
          expect(left).toBeLessThan(SAFE_V);
          expect(d.peakWatt).toBeLessThanOrEqual(10.0001);
          expect(d.ratingWatt).toBeGreaterThanOrEqual(d.peakWatt / 2);
        },
      ),
    );
  });
});

describe('cautions', () => {
  it('come with the most dangerous first, and leave mains work to licensed people', () => {
    const cautions = cautionsOf(['hot parts', 'mains']);
    expect(cautions[0]).toMatch(/^Unplug/);
    expect(cautions.some((c) => c.includes('licensed'))).toBe(true);
    expect(cautionsOf([])).toEqual([]);
  });
});
