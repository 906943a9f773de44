import { describe, expect, it } from 'vitest';
import { crossingsOf, harmonics, oscillationOf, totalHarmonicDistortion, type Trace } from './index.ts';

const trace = (stopS: number, points: number, at: (t: number) => number): Trace => {
  const timeS = Array.from({ length: points + 1 }, (_, i) => (i * stopS) / points);
  return { timeS, value: timeS.map(at) };
};

describe('harmonics', () => {
  it('of a square wave are 4/(pi n), odd ones only, and its distortion pi²/8 - 1 (Fourier)', () => {
    const square = Float64Array.from({ length: 40_000 }, (_, i) => (i < 20_000 ? 1 : -1));
    const found = harmonics(square, 1, 9);
    for (const n of [1, 3, 5, 7, 9]) expect(found[n]).toBeCloseTo(4 / (Math.PI * n), 4);
    for (const n of [0, 2, 4, 6, 8]) expect(found[n]).toBeCloseTo(0, 3);
    const all = totalHarmonicDistortion(harmonics(square, 1, 400));
    expect(all).toBeCloseTo(Math.sqrt(Math.PI ** 2 / 8 - 1), 2);
  });

  it('of silence have no distortion to speak of', () => {
    expect(totalHarmonicDistortion([0, 0, 0])).toBeNaN();
  });
});

describe('a trace', () => {
  it('crosses a level where a straight line between its points does', () => {
    const ramp = trace(1, 10, (t) => 2 * t);
    expect(crossingsOf(ramp, 0.5, true)).toEqual([expect.closeTo(0.25, 12)]);
    expect(crossingsOf(ramp, 0.5, false)).toEqual([]);
  });

  it('has the rate, swing and duty of its steady end', () => {
    const sine = oscillationOf(trace(0.02, 4000, (t) => 1 + 3 * Math.sin(2 * Math.PI * 440 * t)))!;
    expect(sine.frequencyHz).toBeCloseTo(440, 1);
    expect(sine.swing).toBeCloseTo(6, 2);
    expect(sine.duty).toBeCloseTo(0.5, 3);
    const pulses = oscillationOf(trace(0.1, 40_000, (t) => ((t * 100) % 1 < 0.25 ? 5 : 0)))!;
    expect(pulses.duty).toBeCloseTo(0.25, 2);
  });

  it('that dies away, grows or rests does not oscillate', () => {
    const ringing = (rate: number) =>
      trace(0.1, 8000, (t) => Math.exp(rate * t) * Math.sin(2 * Math.PI * 200 * t));
    expect(oscillationOf(ringing(-40))).toBeNull();
    expect(oscillationOf(ringing(40))).toBeNull();
    expect(oscillationOf(trace(0.1, 1000, () => 4))).toBeNull();
  });
});
