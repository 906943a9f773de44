import type { Layer } from '@zemble/contract';
import {
  AnalysisSession,
  formatQuantity,
  ZembleError,
  logSpaced,
  magnitude,
  naturalFrequencies,
  noiseAt,
  ratioToDb,
  readoutSlopes,
  seededRandom,
  spreadParts,
  resolveLayer,
  toleranceRuns,
  transfer,
  transient,
  unitOf,
  usualTolerance,
  type Unit,
  type UnitDocument,
} from '@zemble/core';

/** Analyses that are made when they are asked for, one layer at a time. */
export type DeepKind = 'spread' | 'parts' | 'noise' | 'switch-on' | 'stability';

export interface DeepRequest {
  readonly kind: DeepKind;
  readonly document: UnitDocument;
  readonly layer: Layer;
  readonly from: string;
  readonly to: string;
  /** The readout that is drawn. */
  readonly readoutId: string;
}

export interface Series {
  readonly name: string;
  readonly x: readonly number[];
  readonly y: readonly number[];
}

export interface DeepAnswer {
  readonly kind: DeepKind;
  /** One plain sentence. */
  readonly sentence: string;
  readonly series: readonly Series[];
  /** How far a per cent of each part moves the readout, largest first. */
  readonly slopes?: readonly { readonly ref: string; readonly perPercent: number }[];
  readonly ok: boolean;
}

export const SPREAD_RUNS = 1000;
/** As the response has them, so that band and curve share their points. */
const SPREAD_PER_DECADE = 24;
/** The shaded band holds this share of the runs on either side. */
const OUTSIDE = 0.05;

/** Makes one analysis; what has no answer is a sentence. */
export function deepAnalysis(request: DeepRequest, onProgress: (fraction: number) => void): DeepAnswer {
  try {
    const session = new AnalysisSession(resolveLayer(request.document.circuit, request.layer));
    if (request.kind === 'spread')
      return spreadBand([spreadRuns(request, SPREAD_SEEDS[0], SPREAD_RUNS, onProgress)]);
    if (request.kind === 'parts') return whatMoves(session, request);
    if (request.kind === 'noise') return noise(session, request);
    return request.kind === 'stability' ? stability(session) : switchOn(session, request, onProgress);
  } catch (error) {
    if (error instanceof ZembleError)
      return { kind: request.kind, ok: false, sentence: error.message, series: [] };
    throw error;
  }
}

/** Seeds of the two shares in which a spread is made. */
export const SPREAD_SEEDS = [1, 2] as const;

/** A share of the runs of a spread: the gain at each frequency, a run each. */
export interface SpreadRuns {
  readonly frequencyHz: readonly number[];
  readonly gainDb: readonly Float64Array[];
}

/** Makes one share of a spread. Throws as assembling does. */
export function spreadRuns(
  { document, layer, from, to }: DeepRequest,
  seed: number,
  runs: number,
  onProgress: (fraction: number) => void,
): SpreadRuns {
  const session = new AnalysisSession(resolveLayer(document.circuit, layer));
  const frequencyHz = logSpaced(10, 100_000, SPREAD_PER_DECADE);
  const parts = spreadParts(session.circuit, usualTolerance);
  const gains = frequencyHz.map(
    (f) => (at: AnalysisSession) => ratioToDb(magnitude(transfer(at, from, to, f))),
  );
  const { values } = toleranceRuns(session, parts, gains, { runs, random: seededRandom(seed), onProgress });
  return { frequencyHz, gainDb: values };
}

/** The band of a spread from its shares. */
export function spreadBand(shares: readonly SpreadRuns[]): DeepAnswer {
  const { frequencyHz } = shares[0]!;
  const sorted = frequencyHz.map((_, i) =>
    Float64Array.from(shares.flatMap((s) => [...s.gainDb[i]!])).sort(),
  );
  const at = (share: number) => sorted.map((r) => r[Math.round(share * (r.length - 1))]!);
  const [low, high] = [at(OUTSIDE), at(1 - OUTSIDE)];
  const middle = frequencyHz.findIndex((f) => f >= 1000);
  const width = (high[middle]! - low[middle]!).toFixed(1);
  return {
    kind: 'spread',
    ok: true,
    sentence: `Nine of ten units of these parts lie within ${width} dB of one another at 1 kHz.`,
    series: [
      { name: 'low', x: frequencyHz, y: low },
      { name: 'high', x: frequencyHz, y: high },
    ],
  };
}

/** How far each part moves the readout that is drawn. */
function whatMoves(session: AnalysisSession, { document, readoutId }: DeepRequest): DeepAnswer {
  const readout = document.readouts.find((r) => r.id === readoutId);
  const parts = spreadParts(session.circuit, usualTolerance);
  if (!readout || parts.length === 0)
    return { kind: 'parts', ok: false, sentence: 'There is nothing to move it.', series: [] };
  const slopes = readoutSlopes(session, [readout], document, parts)[0]!
    .map((slope, i) => ({ ref: parts[i]!.ref, perPercent: slope / 100 }))
    .sort((a, b) => Math.abs(b.perPercent) - Math.abs(a.perPercent));
  const [first] = slopes;
  const unit = unitOf(readout, document.readouts);
  const sentence =
    first && first.perPercent !== 0
      ? `${readout.name}: ${first.ref} moves it most, ${signed(first.perPercent, unit)} for each per cent it is high.`
      : `${readout.name}: no part moves it.`;
  return { kind: 'parts', ok: true, sentence, series: [], slopes };
}

const signed = (value: number, unit: Unit) =>
  `${value > 0 ? '+' : '−'}${formatQuantity(Math.abs(value), unit, { digits: 2 })}`;

function noise(session: AnalysisSession, { to }: DeepRequest): DeepAnswer {
  const plain = noiseAt(session, { out: to });
  const weighted = noiseAt(session, { out: to, weighting: 'A' });
  const loudest = weighted.contributors.slice(0, 2).map((c) => `${c.ref} ${Math.round(c.share * 100)} %`);
  const nano = plain.densityV.map((v) => v * 1e9);
  return {
    kind: 'noise',
    ok: true,
    sentence: `${formatQuantity(weighted.totalV, 'V')} A-weighted at ${to}, ${formatQuantity(plain.totalV, 'V')} from 20 Hz to 20 kHz; most of it from ${loudest.join(' and ')}.`,
    series: [{ name: 'nV/rtHz', x: plain.frequencyHz, y: nano }],
  };
}

function stability(session: AnalysisSession): DeepAnswer {
  const { poles, stable } = naturalFrequencies(session);
  const rising = poles.filter((p) => p.re > 0);
  const ringing = poles.filter((p) => p.im > 0 && p.q > 2).sort((a, b) => b.q - a.q)[0];
  const swinging = rising.find((p) => p.im > 0);
  const sentence = swinging
    ? `This oscillates: it starts at about ${formatQuantity(swinging.frequencyHz, 'Hz')}.`
    : !stable
      ? 'This does not rest: it runs to one of its limits.'
      : ringing
        ? `It is stable, and rings most at ${formatQuantity(ringing.frequencyHz, 'Hz')}, Q ${ringing.q.toFixed(1)}.`
        : 'It is stable, and nothing in it rings.';
  return { kind: 'stability', ok: true, sentence, series: [] };
}

const FIRST_RUN_S = 5e-3;
const RUN_GROWTH = 4;
const LONGEST_RUN_S = 20;
const AT_REST = 0.02;
const LISTED_POINTS = 600;

/** The output after switch-on, in runs that grow until it has come to rest. */
function switchOn(
  session: AnalysisSession,
  { to }: DeepRequest,
  onProgress: (fraction: number) => void,
): DeepAnswer {
  const silent = session.with({ silence: 'all' });
  const node = silent.system.node(to);
  for (let stopS = FIRST_RUN_S; ; stopS *= RUN_GROWTH) {
    const [x, y]: [number[], number[]] = [[], []];
    const outcome = transient(silent, {
      stopS,
      start: 'zero',
      onPoint: (t, v) => void (x.push(t), y.push(v[node]!)),
    });
    if (!outcome.ok) return { kind: 'switch-on', ok: false, sentence: outcome.problem.message, series: [] };
    const peak = y.reduce((most, v) => Math.max(most, Math.abs(v)), 0);
    const late = y.filter((_, i) => x[i]! > stopS * 0.6);
    const isQuiet = Math.max(...late) - Math.min(...late) <= AT_REST * peak;
    onProgress(Math.min(1, Math.log(stopS / FIRST_RUN_S) / Math.log(LONGEST_RUN_S / FIRST_RUN_S)));
    if (!isQuiet && stopS < LONGEST_RUN_S) continue;
    const every = Math.max(1, Math.floor(x.length / LISTED_POINTS));
    const keep = (list: number[]) => list.filter((_, i) => i % every === 0 || i === list.length - 1);
    const words = isQuiet
      ? `Peaks at ${formatQuantity(peak, 'V')} after switch-on, then rests.`
      : `Peaks at ${formatQuantity(peak, 'V')} and does not come to rest: it swings on.`;
    return { kind: 'switch-on', ok: true, sentence: words, series: [{ name: to, x: keep(x), y: keep(y) }] };
  }
}
