import { LAYERS, type Layer } from '@halfsplit/contract';
import {
  BenchModel,
  evaluateReadout,
  HalfsplitError,
  logSpaced,
  magnitude,
  NoOperatingPoint,
  ratioToDb,
  solve,
  unitOf,
  type Proposal,
  type ReadoutAnswer,
  type ReadoutRow,
  type SolveRequest,
  type UnitDocument,
} from '@halfsplit/core';

/** What a unit's page shows of one layer. */
export interface LayerAnalysis {
  /** Volt by net; null with the reason when there is no operating point. */
  readonly volts: Readonly<Record<string, number>> | null;
  readonly reason: string | null;
  /** Gain in dB at the frequencies of the analysis; null when it cannot be computed. */
  readonly gainDb: readonly number[] | null;
}

export interface Analysis {
  readonly frequencyHz: readonly number[];
  readonly rows: readonly ReadoutRow[];
  readonly layers: Readonly<Record<Layer, LayerAnalysis>>;
}

export interface AnalysisRequest {
  readonly document: UnitDocument;
  /** Nets between which the response is drawn; absent when there are none. */
  readonly response: { readonly from: string; readonly to: string } | null;
}

const LOWEST_HZ = 10;
const HIGHEST_HZ = 100_000;
const POINTS_PER_DECADE = 24;

/** Everything a unit's page shows: readouts, net voltages and the response on every layer. */
export function analyse({ document, response }: AnalysisRequest): Analysis {
  const frequencyHz = logSpaced(LOWEST_HZ, HIGHEST_HZ, POINTS_PER_DECADE);
  const answers = {} as Record<Layer, readonly ReadoutAnswer[]>;
  const layers = {} as Record<Layer, LayerAnalysis>;
  for (const layer of LAYERS) {
    const made = analyseLayer(document, layer, response, frequencyHz);
    answers[layer] = made.answers;
    layers[layer] = made.analysis;
  }
  const rows = document.readouts.map((readout, i): ReadoutRow => ({
    id: readout.id,
    unit: unitOf(readout),
    answers: Object.fromEntries(LAYERS.map((l) => [l, answers[l][i]!])) as Record<Layer, ReadoutAnswer>,
  }));
  return { frequencyHz, rows, layers };
}

function analyseLayer(
  document: UnitDocument,
  layer: Layer,
  response: AnalysisRequest['response'],
  frequencyHz: readonly number[],
): { answers: readonly ReadoutAnswer[]; analysis: LayerAnalysis } {
  try {
    const model = new BenchModel(document.circuit, layer);
    const point = model.tryOperatingPoint();
    const answers = document.readouts.map((r) => evaluateReadout(model, r));
    if (!point.ok) return { answers, analysis: { volts: null, reason: point.problem.message, gainDb: null } };
    const volts = Object.fromEntries(model.system.nets().map(([net, i]) => [net, point.x[i]!]));
    return {
      answers,
      analysis: { volts, reason: null, gainDb: response && responseOf(model, response, frequencyHz) },
    };
  } catch (error) {
    if (!(error instanceof HalfsplitError)) throw error;
    const { problem } = error;
    const answers = document.readouts.map((): ReadoutAnswer => ({ ok: false, problem }));
    return { answers, analysis: { volts: null, reason: problem.message, gainDb: null } };
  }
}

function responseOf(
  model: BenchModel,
  nets: { from: string; to: string },
  frequencyHz: readonly number[],
): number[] | null {
  try {
    return frequencyHz.map((f) => ratioToDb(magnitude(model.transfer(nets.from, nets.to, f))));
  } catch (error) {
    if (error instanceof HalfsplitError || error instanceof NoOperatingPoint) return null;
    throw error;
  }
}

export type SolveOutcome =
  | { readonly ok: true; readonly proposals: readonly Proposal[] }
  | { readonly ok: false; readonly sentence: string };

/** The value search as an outcome, so that a refusal crosses from the worker as data. */
export function search(request: SolveRequest, onProgress: (fraction: number) => void): SolveOutcome {
  try {
    return { ok: true, proposals: solve(request, onProgress) };
  } catch (error) {
    if (error instanceof HalfsplitError || error instanceof NoOperatingPoint)
      return { ok: false, sentence: error.message };
    throw error;
  }
}
