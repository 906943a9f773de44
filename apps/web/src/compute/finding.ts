import {
  checkPath,
  faultDictionary,
  resolveLayer,
  preparePath,
  searchParts,
  searchState,
  type Circuit,
  type DictionaryEntry,
  type Measured,
  type PartFault,
  type PartSearch,
  type Quantity,
  type SearchOptions,
  type SearchState,
  type UnitDocument,
} from '@zemble/core';

/** Where the search of a unit stands, or why it cannot be searched. */
export type SearchOutcome =
  { readonly ok: true; readonly state: SearchState } | { readonly ok: false; readonly sentence: string };

/** Suspects and next tests of a unit with a path. */
export function searchOf(document: UnitDocument, options: SearchOptions): SearchOutcome {
  const { path, circuit } = document;
  if (!path || path.blocks.length === 0) return { ok: false, sentence: 'There is no path yet.' };
  const [first] = checkPath(path, circuit);
  if (first) return { ok: false, sentence: first.message };
  return { ok: true, state: searchState(preparePath(path, circuit), document, options) };
}

/** One worker's share of a fault dictionary, without the functions that made it. */
export interface PartsRequest {
  readonly circuit: Circuit;
  readonly quantities: readonly Quantity[];
  readonly refs: readonly string[];
  readonly share: { readonly index: number; readonly of: number };
}

/** An entry that can be sent from a worker. */
export interface PlainEntry {
  readonly fault: Omit<PartFault, 'apply'> | null;
  readonly predicted: DictionaryEntry['predicted'];
}

export const partsShare = (request: PartsRequest, onProgress: (fraction: number) => void): PlainEntry[] =>
  faultDictionary(resolveLayer(request.circuit, 'found'), request.quantities, {
    refs: request.refs,
    share: request.share,
    onProgress,
  }).map(({ fault, predicted }) => ({
    fault: fault && plain(fault),
    predicted,
  }));

const plain = ({ apply: _apply, ...fault }: PartFault): Omit<PartFault, 'apply'> => fault;

/** Compares readings with the joined shares. */
export function searchAmongParts(
  entries: readonly PlainEntry[],
  quantities: readonly Quantity[],
  measured: readonly Measured[],
): PartSearch {
  return searchParts(
    entries,
    quantities,
    measured.map((m) => m.value),
    measured.map((m) => m.isSure === true),
  );
}
