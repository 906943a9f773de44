/**
 * Amplitudes of a wave's fundamental and harmonics from samples evenly spaced over a whole number of periods, by the
 * discrete Fourier sum at each. Index 0 is the mean, 1 the fundamental.
 */
export function harmonics(samples: Float64Array, periods: number, highest: number): number[] {
  const n = samples.length;
  return Array.from({ length: highest + 1 }, (_, order) => {
    let [re, im] = [0, 0];
    const turn = (2 * Math.PI * order * periods) / n;
    for (let i = 0; i < n; i += 1) {
      re += samples[i]! * Math.cos(turn * i);
      im += samples[i]! * Math.sin(turn * i);
    }
    return (Math.hypot(re, im) * (order === 0 ? 1 : 2)) / n;
  });
}

/** Total harmonic distortion: root of the harmonics' power over the fundamental (IEC 60268-3, THD_F), orders 2 and up. */
export function totalHarmonicDistortion(amplitudes: readonly number[]): number {
  const fundamental = amplitudes[1] ?? 0;
  const power = amplitudes.slice(2).reduce((sum, a) => sum + a * a, 0);
  return fundamental > 0 ? Math.sqrt(power) / fundamental : Number.NaN;
}
