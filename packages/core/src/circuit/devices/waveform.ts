import type { LayerPartOf } from '../circuit/index.ts';

type SignalPart = LayerPartOf<'signal'>;
/** What a signal source does when it says nothing else. */
export const USUAL_FREQUENCY_HZ = 1000;
export const USUAL_SAMPLE_RATE_HZ = 48_000;

/** EMF in volt at a time in seconds since the start. */
export type Waveform = (timeS: number) => number;

/**
 * Waveform of a signal source: sine starts at phase 0, square starts high, triangle starts at the offset rising,
 * pulse has delay, width, period, rise and fall and goes from the offset to offset + amplitude; sampled plays `samples` (1 is
 * the amplitude) at `sampleRateHz`, straight between them, once.
 */
export function waveformOf(part: SignalPart, amplitude: number): Waveform {
  const offset = part.offset ?? 0;
  const frequency = part.frequency ?? USUAL_FREQUENCY_HZ;
  const phase = (timeS: number) => frequency * timeS - Math.floor(frequency * timeS);
  switch (part.waveform) {
    case 'square':
      return (t) => offset + (phase(t) < 0.5 ? amplitude : -amplitude);
    case 'triangle':
      return (t) => {
        const p = phase(t);
        return offset + amplitude * (p < 0.25 ? 4 * p : p < 0.75 ? 2 - 4 * p : 4 * p - 4);
      };
    case 'pulse':
      return pulseOf(part, amplitude, offset);
    case 'sampled':
      return sampledOf(part, amplitude, offset);
    default:
      return (t) => offset + amplitude * Math.sin(2 * Math.PI * frequency * t);
  }
}

function sampledOf(part: SignalPart, amplitude: number, offset: number): Waveform {
  const samples = part.samples ?? [];
  const rate = part.sampleRateHz ?? USUAL_SAMPLE_RATE_HZ;
  return (timeS) => {
    const place = timeS * rate;
    const before = Math.floor(place);
    const [a, b] = [samples[before] ?? 0, samples[before + 1] ?? 0];
    return offset + amplitude * (a + (b - a) * (place - before));
  };
}

function pulseOf(part: SignalPart, amplitude: number, offset: number): Waveform {
  const { delay = 0, width = 0, rise = 0, fall = 0 } = part;
  const periodS = part.periodS ?? Number.POSITIVE_INFINITY;
  return (timeS) => {
    const since = timeS - delay;
    if (since < 0) return offset;
    const t = Number.isFinite(periodS) && periodS > 0 ? since % periodS : since;
    if (t < rise) return offset + (amplitude * t) / rise;
    if (t < rise + width) return offset + amplitude;
    if (t < rise + width + fall) return offset + amplitude * (1 - (t - rise - width) / fall);
    return offset;
  };
}
