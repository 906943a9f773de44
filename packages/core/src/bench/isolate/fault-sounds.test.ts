import { HEARD } from '@zemble/contract';
import FFT from 'fft.js';
import { describe, expect, it } from 'vitest';
import { faultSound } from './fault-sounds.ts';

const RATE = 48_000;
const SIZE = 65_536;

/** Power in a band by a general FFT library. */
function power(samples: Float32Array, fromHz: number, toHz: number): number {
  const fft = new FFT(SIZE);
  const spectrum = fft.createComplexArray() as number[];
  fft.realTransform(spectrum, Array.from(samples.subarray(0, SIZE)));
  let sum = 0;
  for (let k = Math.ceil((fromHz * SIZE) / RATE); k < (toHz * SIZE) / RATE; k += 1)
    sum += spectrum[2 * k]! ** 2 + spectrum[2 * k + 1]! ** 2;
  return sum;
}
const rms = (s: Float32Array) => Math.sqrt(s.reduce((a, v) => a + v * v, 0) / s.length);

describe('sounds to point at', () => {
  it.each(HEARD)('%s stays within full scale and is the same every time', (heard) => {
    const samples = faultSound(heard, RATE);
    expect(samples.every((v) => Math.abs(v) <= 1)).toBe(true);
    expect(faultSound(heard, RATE)).toEqual(samples);
  });

  it('hum is strongest at twice the mains, hiss has what the clean tune has not above 10 kHz', () => {
    const hum = faultSound('hum', RATE);
    expect(power(hum, 95, 105)).toBeGreaterThan(5 * power(hum, 45, 55));
    // Where the mains has 60 Hz, it hums at 120.
    const elsewhere = faultSound('hum', RATE, 60);
    expect(power(elsewhere, 115, 125)).toBeGreaterThan(5 * power(elsewhere, 55, 65));
    expect(power(elsewhere, 115, 125)).toBeGreaterThan(20 * power(elsewhere, 95, 105));
    const clean = faultSound('as it should be', RATE);
    expect(power(faultSound('hiss', RATE), 10_000, 20_000)).toBeGreaterThan(
      1000 * power(clean, 10_000, 20_000),
    );
  });

  it('distortion adds harmonics, weak is weak, nothing is nothing', () => {
    const clean = faultSound('as it should be', RATE);
    const share = (s: Float32Array) => power(s, 2500, 12_000) / power(s, 300, 12_000);
    expect(share(faultSound('distortion', RATE))).toBeGreaterThan(5 * share(clean));
    expect(rms(faultSound('weak', RATE))).toBeLessThan(0.1 * rms(clean));
    expect(rms(faultSound('nothing', RATE))).toBe(0);
  });
});
