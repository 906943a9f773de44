/** Frequency weightings for noise, as voltage ratios at a frequency in Hz. */
export const WEIGHTINGS = ['none', 'A', '468'] as const;
export type Weighting = (typeof WEIGHTINGS)[number];

/** Corner frequencies of the A weighting, Hz, and its gain at 1 kHz, dB (IEC 61672-1, annex E). */
const F1 = 20.598997;
const F2 = 107.65265;
const F3 = 737.86223;
const F4 = 12194.217;
const A1000_DB = -2.0;

function weightingA(f: number): number {
  const f2 = f * f;
  const ratio =
    (F4 * F4 * f2 * f2) / ((f2 + F1 * F1) * Math.sqrt((f2 + F2 * F2) * (f2 + F3 * F3)) * (f2 + F4 * F4));
  return ratio / 10 ** (A1000_DB / 20);
}

/** ITU-R BS.468-4: the response of its network, 18.246 dB down at 1 kHz before its gain. */
function weighting468(f: number): number {
  const h1 =
    -4.737338981378384e-24 * f ** 6 + 2.043828333606125e-15 * f ** 4 - 1.363894795463638e-7 * f ** 2 + 1;
  const h2 = 1.306612257412824e-19 * f ** 5 - 2.118150887518656e-11 * f ** 3 + 5.559488023498642e-4 * f;
  return (1.246332637532143e-4 * f * 10 ** (18.246265 / 20)) / Math.hypot(h1, h2);
}

export function weightingAt(weighting: Weighting, frequencyHz: number): number {
  if (weighting === 'A') return weightingA(frequencyHz);
  return weighting === '468' ? weighting468(frequencyHz) : 1;
}
