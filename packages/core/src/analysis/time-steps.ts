import type { Layer } from '@halfsplit/contract';
import { parameter, valueOnLayer, type Part } from '../circuit/index.ts';

/** Steps of a source's period that a run in time takes at least. */
export const STEPS_A_PERIOD = 40;

/** Times at which a source jumps or bends sharply, s, up to the end. */
export function edgesOf(part: Part, stopS: number): number[] {
  const frequency = parameter(part, 'frequency') ?? 1000;
  const field = (name: string) => parameter(part, name) ?? 0;
  const edges: number[] = [];
  if (part['waveform'] === 'square' || part['waveform'] === 'triangle') {
    const phases = part['waveform'] === 'square' ? [0, 0.5] : [0.25, 0.75];
    for (let n = 0; n / frequency <= stopS && edges.length < MOST_EDGES; n += 1)
      for (const p of phases) edges.push((n + p) / frequency);
  }
  if (part['waveform'] === 'pulse') {
    const period = parameter(part, 'periodS') ?? Number.POSITIVE_INFINITY;
    const marks = [
      0,
      field('rise'),
      field('rise') + field('width'),
      field('rise') + field('width') + field('fall'),
    ];
    for (let start = field('delay'); start <= stopS && edges.length < MOST_EDGES; start += period)
      edges.push(...marks.map((m) => start + m));
  }
  return edges.filter((t) => t > 0 && t < stopS);
}
const MOST_EDGES = 200_000;

/** Frequency of the fastest source that sounds, Hz; 0 when all are silent. */
export function fastestSource(parts: readonly Part[], layer: Layer): number {
  const sampled = parts
    .filter((p) => p.kind === 'signal' && p['waveform'] === 'sampled')
    .map((p) => parameter(p, 'sampleRateHz') ?? USUAL_SAMPLE_RATE_HZ);
  const sounding = parts.filter(
    (p) =>
      p.kind === 'signal' &&
      p['waveform'] !== 'pulse' &&
      p['waveform'] !== 'sampled' &&
      valueOnLayer(p, layer)?.value !== 0,
  );
  // A step never passes over a sample.
  return Math.max(
    0,
    ...sampled.map((rate) => rate / STEPS_A_PERIOD),
    ...sounding.map((p) => parameter(p, 'frequency') ?? USUAL_FREQUENCY_HZ),
  );
}
const USUAL_FREQUENCY_HZ = 1000;
const USUAL_SAMPLE_RATE_HZ = 48_000;

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
