import { LAYERS, type Layer } from '@halfsplit/contract';
import {
  BenchModel,
  evaluateReadout,
  HalfsplitError,
  logSpaced,
  magnitude,
  NoOperatingPoint,
  onDistinctLayers,
  READOUTS,
  ratioToDb,
  solve,
  unitOf,
  type Problem,
  type Proposal,
  type Readout,
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
  /** Current that each supply gives, A, by its designator. */
  readonly supplies: Readonly<Record<string, number>>;
  /** Gain in dB at the frequencies of the analysis; null when it cannot be computed. */
  readonly gainDb: readonly number[] | null;
}

export interface Analysis {
  readonly frequencyHz: readonly number[];
  readonly rows: readonly ReadoutRow[];
  /** True while the readouts that take runs in time are still those of an earlier document. */
  readonly isSlowPending: boolean;
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

const isSlow = (readout: Readout) => READOUTS[readout.kind].isSlow === true;

/** Everything a unit's page shows at once: quick readouts, net voltages and the response on every layer. */
export function analyse({ document, response }: AnalysisRequest): Analysis {
  const frequencyHz = logSpaced(LOWEST_HZ, HIGHEST_HZ, POINTS_PER_DECADE);
  const quick = document.readouts.filter((r) => !isSlow(r));
  const made = onDistinctLayers(document.circuit, (layer) =>
    analyseLayer(document, quick, layer, response, frequencyHz),
  );
  const layers = Object.fromEntries(LAYERS.map((l, i) => [l, made[i]!.analysis])) as Record<
    Layer,
    LayerAnalysis
  >;
  return {
    frequencyHz,
    isSlowPending: true,
    rows: rowsOf(
      document,
      quick,
      made.map((m) => m.answers),
    ),
    layers,
  };
}

/** The readouts that take runs in time, on every layer. */
export function analyseSlowly(document: UnitDocument): readonly ReadoutRow[] {
  const slow = document.readouts.filter(isSlow);
  if (slow.length === 0) return [];
  const made = onDistinctLayers(document.circuit, (layer): readonly ReadoutAnswer[] => {
    const model = tryModel(document, layer);
    return slow.map((r) =>
      'problem' in model
        ? { ok: false, problem: model.problem }
        : evaluateReadout(model, r, document.readouts),
    );
  });
  return rowsOf(document, slow, made);
}

function rowsOf(
  document: UnitDocument,
  readouts: readonly Readout[],
  answers: readonly (readonly ReadoutAnswer[])[],
): ReadoutRow[] {
  return readouts.map((readout, i) => ({
    id: readout.id,
    unit: unitOf(readout, document.readouts),
    answers: Object.fromEntries(LAYERS.map((l, k) => [l, answers[k]![i]!])) as Record<Layer, ReadoutAnswer>,
  }));
}

/** The model of a layer, or the problem that keeps it from being assembled. */
function tryModel(document: UnitDocument, layer: Layer): BenchModel | { problem: Problem } {
  try {
    return new BenchModel(document.circuit, layer);
  } catch (error) {
    if (error instanceof HalfsplitError) return { problem: error.problem };
    throw error;
  }
}

function analyseLayer(
  document: UnitDocument,
  readouts: readonly Readout[],
  layer: Layer,
  response: AnalysisRequest['response'],
  frequencyHz: readonly number[],
): { answers: readonly ReadoutAnswer[]; analysis: LayerAnalysis } {
  const model = tryModel(document, layer);
  if ('problem' in model) {
    const { problem } = model;
    return {
      answers: readouts.map(() => ({ ok: false, problem })),
      analysis: { volts: null, reason: problem.message, supplies: {}, gainDb: null },
    };
  }
  const point = model.tryOperatingPoint();
  const answers = readouts.map((r) => evaluateReadout(model, r));
  if (!point.ok)
    return { answers, analysis: { volts: null, reason: point.problem.message, supplies: {}, gainDb: null } };
  const volts = Object.fromEntries(model.system.nets().map(([net, i]) => [net, point.x[i]!]));
  const supplies = Object.fromEntries(
    document.circuit.parts
      .filter((p) => p.kind === 'supply')
      .map((p) => [p.ref, Math.abs(model.system.device(p.ref).report(point.x).current)]),
  );
  return {
    answers,
    analysis: { volts, reason: null, supplies, gainDb: response && responseOf(model, response, frequencyHz) },
  };
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
