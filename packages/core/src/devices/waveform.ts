import { parameter, type Part } from '../circuit/index.ts';

/** What a signal source does over time, by its `waveform`. */
export const WAVEFORMS = ['sine', 'square', 'triangle', 'pulse', 'sampled'] as const;

/** EMF in volt at a time in seconds since the start. */
export type Waveform = (timeS: number) => number;

/**
 * Waveform of a signal source: sine starts at phase 0, square starts high, triangle starts at the offset rising,
 * pulse has delay, width, period, rise and fall and goes from the offset to offset + amplitude; sampled plays `samples` (1 is
 * the amplitude) at `sampleRateHz`, straight between them, once.
 */
export function waveformOf(part: Part, amplitude: number): Waveform {
  const offset = parameter(part, 'offset') ?? 0;
  const frequency = parameter(part, 'frequency') ?? 1000;
  const phase = (timeS: number) => frequency * timeS - Math.floor(frequency * timeS);
  switch (part['waveform']) {
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

const USUAL_SAMPLE_RATE_HZ = 48_000;

function sampledOf(part: Part, amplitude: number, offset: number): Waveform {
  const samples = Array.isArray(part['samples']) ? (part['samples'] as unknown[]).map(Number) : [];
  const rate = parameter(part, 'sampleRateHz') ?? USUAL_SAMPLE_RATE_HZ;
  return (timeS) => {
    const place = timeS * rate;
    const before = Math.floor(place);
    const [a, b] = [samples[before] ?? 0, samples[before + 1] ?? 0];
    return offset + amplitude * (a + (b - a) * (place - before));
  };
}

function pulseOf(part: Part, amplitude: number, offset: number): Waveform {
  const field = (name: string) => parameter(part, name) ?? 0;
  const [delay, width, rise, fall] = [field('delay'), field('width'), field('rise'), field('fall')];
  const periodS = parameter(part, 'periodS') ?? Number.POSITIVE_INFINITY;
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
