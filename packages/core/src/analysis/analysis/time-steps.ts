import type { LayerPart, LayerPartOf } from '../../circuit/circuit/index.ts';
import { USUAL_FREQUENCY_HZ, USUAL_SAMPLE_RATE_HZ } from '../../circuit/devices/index.ts';

/** Steps of a source's period that a run in time takes at least. */
export const STEPS_A_PERIOD = 40;

/** Times at which a source jumps or bends sharply, s, up to the end. */
export function edgesOf(part: LayerPartOf<'signal'>, stopS: number): number[] {
  const { frequency = USUAL_FREQUENCY_HZ, delay = 0, width = 0, rise = 0, fall = 0 } = part;
  const edges: number[] = [];
  if (part.waveform === 'square' || part.waveform === 'triangle') {
    const phases = part.waveform === 'square' ? [0, 0.5] : [0.25, 0.75];
    for (let n = 0; n / frequency <= stopS && edges.length < MOST_EDGES; n += 1)
      for (const p of phases) edges.push((n + p) / frequency);
  }
  if (part.waveform === 'pulse') {
    const period = part.periodS ?? Number.POSITIVE_INFINITY;
    const marks = [0, rise, rise + width, rise + width + fall];
    for (let start = delay; start <= stopS && edges.length < MOST_EDGES; start += period)
      edges.push(...marks.map((m) => start + m));
  }
  return edges.filter((t) => t > 0 && t < stopS);
}
const MOST_EDGES = 200_000;

/** Frequency of the fastest source that sounds, Hz; 0 when all are silent. */
export function fastestSource(parts: readonly LayerPart[]): number {
  const signals = parts.filter((p) => p.kind === 'signal');
  const sampled = signals
    .filter((p) => p.waveform === 'sampled')
    .map((p) => p.sampleRateHz ?? USUAL_SAMPLE_RATE_HZ);
  const sounding = signals.filter(
    (p) => p.waveform !== 'pulse' && p.waveform !== 'sampled' && p.value !== 0 && p.value !== null,
  );
  // A step never passes over a sample.
  return Math.max(
    0,
    ...sampled.map((rate) => rate / STEPS_A_PERIOD),
    ...sounding.map((p) => p.frequency ?? USUAL_FREQUENCY_HZ),
  );
}

/** Two times closer than this part of a step are one. */
export const SAME_TIME = 1e-6;
/** An interval is halved at most this often. */
const MOST_HALVINGS = 16;

/**
 * The longest step not above the wanted one that is the output's spacing halved some times and goes into what is left of
 * it without a rest; the wanted one where an edge has put the steps out of order.
 */
export function dividing(spacing: number, left: number, wanted: number): number {
  let step = spacing;
  for (let i = 0; i < MOST_HALVINGS; i += 1) {
    const count = left / step;
    if (step <= wanted * (1 + SAME_TIME) && Math.abs(count - Math.round(count)) < SAME_TIME * count)
      return step;
    step /= 2;
  }
  return Math.min(wanted, left);
}
