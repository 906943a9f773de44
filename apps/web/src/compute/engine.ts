import type { Layer } from '@zemble/contract';
import {
  AnalysisSession,
  byLayer,
  checkRatings,
  stressesOf,
  type Stress,
  evaluateReadout,
  ZembleError,
  logSpaced,
  magnitude,
  onDistinctLayers,
  ratioToDb,
  solve,
  transferOver,
  unitOf,
  type Problem,
  type LayerCircuit,
  type Readout,
  type ReadoutAnswer,
  type ReadoutRow,
  type SolveAnswer,
  type SolveRequest,
  type UnitDocument,
} from '@zemble/core';
import { isSlow } from './is-slow.ts';

/** What a unit's page shows of one layer. */
export interface LayerAnalysis {
  /** Volt by net; null with the reason when there is no operating point. */
  readonly volts: Readonly<Record<string, number>> | null;
  readonly reason: string | null;
  /** Current that each supply gives, A, by its designator. */
  readonly supplies: Readonly<Record<string, number>>;
  /** Gain in dB at the frequencies of the analysis; null when it cannot be computed. */
  readonly gainDb: readonly number[] | null;
  /** What is asked of parts beyond their ratings. */
  readonly overRated: readonly Problem[];
  /** What parts bear that stand near their limit. */
  readonly stresses: readonly Stress[];
}

export interface Analysis {
  readonly frequencyHz: readonly number[];
  readonly rows: readonly ReadoutRow[];
  /** True while the readouts that take runs in time are still those of an earlier document. */
  readonly isSlowPending: boolean;
  /** True while everything is of the document as it is now. */
  readonly isCurrent: boolean;
  readonly layers: Readonly<Record<Layer, LayerAnalysis>>;
}

export interface AnalysisRequest {
  readonly document: UnitDocument;
  /** Net or source, and net, between which the response is drawn; absent when there are none. */
  readonly response: ResponseEnds | null;
}

/** Net or source, and net, between which a response is drawn. */
export interface ResponseEnds {
  readonly from: string;
  readonly to: string;
}

const LOWEST_HZ = 10;
const HIGHEST_HZ = 100_000;
const POINTS_PER_DECADE = 24;

/** Everything a unit's page shows at once: quick readouts, net voltages and the response on every layer. */
export function analyse({ document, response }: AnalysisRequest): Analysis {
  const frequencyHz = logSpaced(LOWEST_HZ, HIGHEST_HZ, POINTS_PER_DECADE);
  const quick = document.readouts.filter((r) => !isSlow(r));
  const made = onDistinctLayers(document.circuit, (circuit) =>
    analyseLayer(document, quick, circuit, response, frequencyHz),
  );
  const layers = byLayer(made.map((m) => m.analysis));
  return {
    frequencyHz,
    isSlowPending: true,
    isCurrent: false,
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
  const made = onDistinctLayers(document.circuit, (circuit): readonly ReadoutAnswer[] => {
    const session = trySession(circuit);
    return slow.map((r) =>
      'problem' in session ? { ok: false, problem: session.problem } : evaluateReadout(session, r, document),
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
    answers: byLayer(answers.map((a) => a[i]!)),
  }));
}

/** A session on a layer's circuit, or the problem that keeps it from being assembled. */
function trySession(circuit: LayerCircuit): AnalysisSession | { problem: Problem } {
  try {
    return new AnalysisSession(circuit);
  } catch (error) {
    if (error instanceof ZembleError) return { problem: error.problem };
    throw error;
  }
}

interface AnalysedLayer {
  readonly answers: readonly ReadoutAnswer[];
  readonly analysis: LayerAnalysis;
}

/** Layers that were analysed last, by all that they depend on, the latest at the end: a planned value that is turned moves no other layer. */
const known = new Map<string, AnalysedLayer>();
const MOST_KNOWN = 12;

/** A layer as it was analysed before, or analysed now. */
function analyseLayer(
  document: UnitDocument,
  readouts: readonly Readout[],
  circuit: LayerCircuit,
  response: AnalysisRequest['response'],
  frequencyHz: readonly number[],
): AnalysedLayer {
  const key = JSON.stringify([circuit, document.readouts, document.settings, response]);
  const made = known.get(key) ?? analyseAnew(document, readouts, circuit, response, frequencyHz);
  known.delete(key);
  known.set(key, made);
  const [oldest] = known.keys();
  if (known.size > MOST_KNOWN && oldest !== undefined) known.delete(oldest);
  return made;
}

function analyseAnew(
  document: UnitDocument,
  readouts: readonly Readout[],
  circuit: LayerCircuit,
  response: AnalysisRequest['response'],
  frequencyHz: readonly number[],
): AnalysedLayer {
  const nothing = { volts: null, supplies: {}, gainDb: null, overRated: [], stresses: [] };
  const session = trySession(circuit);
  if ('problem' in session) {
    const { problem } = session;
    return {
      answers: readouts.map(() => ({ ok: false, problem })),
      analysis: { ...nothing, reason: problem.message },
    };
  }
  const point = session.tryOperatingPoint();
  const answers = readouts.map((r) => evaluateReadout(session, r, document));
  const gainDb = response && responseOf(session, response, frequencyHz);
  if (!point.ok) return { answers, analysis: { ...nothing, reason: point.problem.message, gainDb } };
  const volts = Object.fromEntries(session.system.nets().map(([net, i]) => [net, point.x[i]!]));
  const supplies = Object.fromEntries(
    circuit.parts
      .filter((p) => p.kind === 'supply')
      .map((p) => [p.ref, Math.abs(session.system.device(p.ref).report(point.x).current)]),
  );
  const [overRated, stresses] = [checkRatings(circuit), stressesOf(session)];
  return { answers, analysis: { volts, reason: null, supplies, gainDb, overRated, stresses } };
}

/** Gain in dB between two ends at frequencies in Hz; null where it cannot be computed. */
export function responseOf(
  session: AnalysisSession,
  ends: ResponseEnds,
  frequencyHz: readonly number[],
): number[] | null {
  try {
    const ratioAt = transferOver(session, ends.from, ends.to);
    return frequencyHz.map((f) => ratioToDb(magnitude(ratioAt(f))));
  } catch (error) {
    if (error instanceof ZembleError) return null;
    throw error;
  }
}

export type SolveOutcome =
  { readonly ok: true; readonly answer: SolveAnswer } | { readonly ok: false; readonly sentence: string };

/** A search ends after this time with the best so far, ms. */
const LONGEST_SEARCH_MS = 20_000;

/** The value search as an outcome, so that a refusal crosses from the worker as data. */
export function search(request: SolveRequest, onProgress: (fraction: number) => void): SolveOutcome {
  const end = performance.now() + LONGEST_SEARCH_MS;
  try {
    return { ok: true, answer: solve(request, { onProgress, mayGoOn: () => performance.now() < end }) };
  } catch (error) {
    if (error instanceof ZembleError) return { ok: false, sentence: error.message };
    throw error;
  }
}
