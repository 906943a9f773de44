import {
  AnalysisSession,
  evaluateAll,
  HalfsplitError,
  logSpaced,
  NoOperatingPoint,
  rangesBySetting,
  resolveLayer,
  type LayerCircuit,
  type RangesBySetting,
  type ReadoutAnswer,
  type UnitDocument,
} from '@halfsplit/core';
import { responseOf, type ResponseEnds } from './engine.ts';

export interface CompareRequest {
  readonly document: UnitDocument;
  /** Between what the responses are drawn; null for none. */
  readonly response: ResponseEnds | null;
}

const RESPONSE = { fromHz: 10, toHz: 100_000, perDecade: 16 } as const;
export const COMPARED_HZ: readonly number[] = logSpaced(RESPONSE.fromHz, RESPONSE.toHz, RESPONSE.perDecade);

/** Every readout as it came (no set) and as planned with each set, in the order of the readouts. */
export type ComparedSets = readonly {
  readonly set: string | undefined;
  readonly answers: readonly ReadoutAnswer[];
  /** Gain in dB at `COMPARED_HZ`; null where there is none. */
  readonly gainDb: readonly number[] | null;
}[];

export function compareSets({ document, response }: CompareRequest): ComparedSets {
  const { circuit, readouts } = document;
  const compared = (set: string | undefined, at: LayerCircuit) => ({
    set,
    answers: evaluateAll(at, readouts, document),
    gainDb: response && curveOf(at, response),
  });
  return [
    compared(undefined, resolveLayer(circuit, 'found')),
    ...(circuit.sets ?? []).map(({ id }) => compared(id, resolveLayer(circuit, 'planned', { set: id }))),
  ];
}

function curveOf(circuit: LayerCircuit, response: ResponseEnds): number[] | null {
  try {
    return responseOf(new AnalysisSession(circuit), response, COMPARED_HZ);
  } catch (error) {
    if (error instanceof HalfsplitError) return null;
    throw error;
  }
}

/** The range of a readout over a knob in every setting, as planned; the reason where it cannot be computed at all. */
export function compareRanges({
  document,
  readoutId,
}: {
  readonly document: UnitDocument;
  readonly readoutId: string;
}): RangesBySetting | { readonly sentence: string } {
  const readout = document.readouts.find((r) => r.id === readoutId);
  if (readout?.kind !== 'range') return { sentence: 'That readout is no range over a knob.' };
  try {
    return rangesBySetting(new AnalysisSession(resolveLayer(document.circuit, 'planned')), readout, document);
  } catch (error) {
    if (error instanceof HalfsplitError || error instanceof NoOperatingPoint)
      return { sentence: error.message };
    throw error;
  }
}
