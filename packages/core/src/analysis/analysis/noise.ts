import { weightingAt, type Weighting } from '../audio/index.ts';
import { ZembleError } from '../../base/errors/index.ts';
import type { AnalysisSession } from './session.ts';
import { logSpaced, magnitude } from './small-signal.ts';

export interface NoiseOptions {
  readonly out: string;
  /** Source to refer the noise to. */
  readonly source?: string;
  readonly fromHz?: number;
  readonly toHz?: number;
  readonly weighting?: Weighting;
  /** Signal at the output, V r.m.s., that the noise is compared with. */
  readonly levelV?: number;
}

export interface NoiseAnswer {
  readonly frequencyHz: readonly number[];
  /** V/sqrt(Hz) at the output, unweighted. */
  readonly densityV: readonly number[];
  /** Root of the weighted power over the band, V. */
  readonly totalV: number;
  /** Root of the integral of density^2 / |gain|^2 over the band, V (or Pa for a capsule). */
  readonly inputReferredV?: number;
  /** 20 log10 of the level stated over the total, dB. */
  readonly signalToNoiseDb?: number;
  /** Share of the weighted power, largest first. */
  readonly contributors: readonly { readonly ref: string; readonly share: number }[];
}

const USUAL_FROM_HZ = 20;
const USUAL_TO_HZ = 20_000;
/** Points a decade of the integration, whatever is listed. */
const INTEGRATION_PER_DECADE = 60;
const LISTED_EVERY = 6;

/**
 * Noise at a net: the currents of every device at its operating point, brought to the output by one transposed solution
 * a frequency. Between two frequencies the density is taken for a power law, which integrates exactly. Throws
 * `analysis/bad-request` for an empty band or a source of which nothing arrives.
 */
export function noiseAt(session: AnalysisSession, options: NoiseOptions): NoiseAnswer {
  const { fromHz = USUAL_FROM_HZ, toHz = USUAL_TO_HZ } = options;
  if (!(fromHz > 0) || !(toHz > fromHz))
    throw new ZembleError('analysis/bad-request', {
      where: 'Noise',
      detail: `the band from ${fromHz} Hz to ${toHz} Hz is empty`,
    });
  const { system, smallSignal } = session;
  const out = system.node(options.out, 'The noise');
  const x = session.smallSignalPoint();
  const sources = system.devices.map((d) => ({ ref: d.ref, list: d.noise?.(x) ?? [] }));
  const frequencies = logSpaced(fromHz, toHz, INTEGRATION_PER_DECADE);
  const weighting = options.weighting ?? 'none';
  const byDevice = sources.map(() => new Float64Array(frequencies.length));
  const density = new Float64Array(frequencies.length);
  const referred = new Float64Array(frequencies.length);
  frequencies.forEach((f, n) => {
    smallSignal.at(f);
    const gain = options.source === undefined ? 1 : magnitude(smallSignal.drive(options.source).voltage(out));
    if (gain === 0)
      throw new ZembleError('analysis/bad-request', {
        where: 'Noise',
        detail: `nothing of ${options.source} arrives at ${options.out}, so that its noise cannot be referred to it`,
      });
    const { xRe, xIm } = smallSignal.adjoint(out);
    const weight = weightingAt(weighting, f) ** 2;
    sources.forEach(({ list }, d) => {
      let power = 0;
      for (const { from, to, white, flicker } of list) {
        const re = xRe[to]! - xRe[from]!;
        const im = xIm[to]! - xIm[from]!;
        power += (re * re + im * im) * (white + flicker / f);
      }
      density[n] = density[n]! + power;
      byDevice[d]![n] = power * weight;
    });
    referred[n] = (density[n]! * weight) / (gain * gain);
  });
  const weighted = density.map((p, n) => p * weightingAt(weighting, frequencies[n]!) ** 2);
  const total = integrate(frequencies, weighted);
  const contributors = sources
    .map(({ ref }, d) => ({ ref, share: total > 0 ? integrate(frequencies, byDevice[d]!) / total : 0 }))
    .filter((c) => c.share > 0)
    .sort((a, b) => b.share - a.share);
  const listed = frequencies
    .map((_, n) => n)
    .filter((n) => n % LISTED_EVERY === 0 || n === frequencies.length - 1);
  return {
    frequencyHz: listed.map((n) => frequencies[n]!),
    densityV: listed.map((n) => Math.sqrt(density[n]!)),
    totalV: Math.sqrt(total),
    ...(options.source === undefined ? {} : { inputReferredV: Math.sqrt(integrate(frequencies, referred)) }),
    ...(options.levelV === undefined
      ? {}
      : { signalToNoiseDb: 20 * Math.log10(options.levelV / Math.sqrt(total)) }),
    contributors,
  };
}

/** Integral over frequency of a power density given at log-spaced points, each piece as a power law. */
function integrate(frequencies: readonly number[], power: Float64Array): number {
  let sum = 0;
  for (let i = 1; i < frequencies.length; i += 1) {
    const [f0, f1, p0, p1] = [frequencies[i - 1]!, frequencies[i]!, power[i - 1]!, power[i]!];
    if (p0 <= 0 || p1 <= 0) {
      sum += ((p0 + p1) / 2) * (f1 - f0);
      continue;
    }
    const slope = Math.log(p1 / p0) / Math.log(f1 / f0);
    sum += Math.abs(slope + 1) < 1e-9 ? p0 * f0 * Math.log(f1 / f0) : (p1 * f1 - p0 * f0) / (slope + 1);
  }
  return sum;
}
