import { describe, expect, it } from 'vitest';
import { circuitOf, sessionOf } from '../../testing/circuits.ts';
import { stressesOf } from './stress.ts';

const near = (lines: string, caseC?: number) => stressesOf(sessionOf(circuitOf(lines)), caseC);

describe('life and heat', () => {
  it('says nothing of parts at ease', () => {
    expect(near('V1 9V vcc 0\nR1 10k vcc 0\nC1 100n 63V vcc 0')).toEqual([]);
  });

  it('compares the voltage across a capacitor with its rating, the signal on top', () => {
    // 12 V and a peak of 1 V on 16 V.
    const [c] = near('V1 12V vcc 0\nG1 1V 1kHz in 0\nR1 1k in a\nC1 1n 16V vcc a');
    expect(c).toMatchObject({ ref: 'C1', of: 'voltage' });
    expect(c!.share).toBeCloseTo(13 / 16, 2);
  });

  it('compares the heat of a resistor with its rating, or with the usual one: V²/R', () => {
    const [r] = near('V1 15V vcc 0\nR1 1k vcc 0');
    expect(r!.share).toBeCloseTo(0.225 / 0.25, 3);
    expect(r!.sentence).toBe('R1: 230 mW of heat, 250 mW is usual; one of 450 mW or more runs cool.');
    expect(near('V1 15V vcc 0\nR1 1k power=1 vcc 0')).toEqual([]);
  });

  it('tells a junction with and without a heat sink: Tj = Ta + P theta', () => {
    // A regulator from 15 V to 5 V into 10 ohm: 0.5 A times 10 V, and its own current.
    const [u] = near('V1 15V vin 0\nU1 regulator 5V in=vin out=out gnd=0\nLD1 kind=load 10 out 0');
    expect(u).toMatchObject({ ref: 'U1', of: 'temperature' });
    const watt = 0.5 * 10 + 0.005 * 15;
    expect(u!.share).toBeCloseTo((watt * 62) / 85, 1);
    expect(u!.sentence).toContain('109 °C on one of 10 K/W');
  });

  it('gives electrolytics their years: twice as long for every 10 K cooler', () => {
    const lines = 'V1 9V vcc 0\nR1 10k vcc 0\nC1 100u 25V vcc 0 polarised';
    const years = (caseC: number) => {
      const found = near(lines, caseC).find((s) => s.of === 'life');
      return found ? 5 / found.share : null;
    };
    // 2000 h at 85 degC: 0.228 years, at 65 degC four times that.
    expect(years(85)).toBeCloseTo(2000 / 8766, 3);
    expect(years(65)).toBeCloseTo((4 * 2000) / 8766, 3);
    expect(years(40)).toBeCloseTo(5.16, 1);
    expect(years(25)).toBeNull();
  });

  it('tells the ripple current by Ohm', () => {
    // 1 V peak at 1 kHz over 10 uF in series with 1 ohm: nearly 0.7071/|1 - j15.9| A.
    const lines = 'G1 1V 1kHz in 0\nR1 1 in a\nC1 10u 25V a 0 polarised\nR2 1M a 0';
    expect(near(lines, 60).find((s) => s.of === 'life')!.sentence).toContain('Most ripple: C1 with 44 mA.');
  });
});
