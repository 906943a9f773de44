import {
  AnalysisSession,
  evaluateAll,
  ZembleError,
  logSpaced,
  rangesBySetting,
  resolveLayer,
  type LayerCircuit,
  type RangesBySetting,
  type ReadoutAnswer,
  type UnitDocument,
} from '@zemble/core';
import { isSlow } from './is-slow.ts';
import { responseOf, type ResponseEnds } from './engine.ts';

export interface CompareRequest {
  readonly document: UnitDocument;
  /** Between what the responses are drawn; null for none. */
  readonly response: ResponseEnds | null;
  readonly withSlow: boolean;
}

const RESPONSE = { fromHz: 10, toHz: 100_000, perDecade: 16 } as const;
export const COMPARED_HZ: readonly number[] = logSpaced(RESPONSE.fromHz, RESPONSE.toHz, RESPONSE.perDecade);

/** Every readout as it came (no set) and as planned with each set, in the order of the readouts. */
export type ComparedSets = readonly {
  readonly set: string | undefined;
  /** Null for one that is left open. */
  readonly answers: readonly (ReadoutAnswer | null)[];
  /** Gain in dB at `COMPARED_HZ`; null where there is none. */
  readonly gainDb: readonly number[] | null;
}[];

/** A comparison ends after this time; what takes longer is left out, ms. */
const LONGEST_MS = 20_000;

const untilLate = () => {
  const end = performance.now() + LONGEST_MS;
  return () => performance.now() < end;
};

/** @param withSlow whether readouts that take runs in time are taken, or left open for later */
export function compareSets({ document, response, withSlow }: CompareRequest): ComparedSets {
  const { circuit, readouts } = document;
  const taken = readouts.filter((r) => withSlow || !isSlow(r));
  const compared = (set: string | undefined, at: LayerCircuit) => {
    const answers = evaluateAll(at, taken, { ...document, mayGoOn: untilLate() });
    return {
      set,
      answers: readouts.map((r) => answers[taken.indexOf(r)] ?? null),
      gainDb: response && curveOf(at, response),
    };
  };
  return [
    compared(undefined, resolveLayer(circuit, 'found')),
    ...(circuit.sets ?? []).map(({ id }) => compared(id, resolveLayer(circuit, 'planned', { set: id }))),
  ];
}

function curveOf(circuit: LayerCircuit, response: ResponseEnds): number[] | null {
  try {
    return responseOf(new AnalysisSession(circuit), response, COMPARED_HZ);
  } catch (error) {
    if (error instanceof ZembleError) return null;
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
    const session = new AnalysisSession(resolveLayer(document.circuit, 'planned'));
    return rangesBySetting(session, readout, { ...document, mayGoOn: untilLate() });
  } catch (error) {
    if (error instanceof ZembleError) return { sentence: error.message };
    throw error;
  }
}
