import { evaluateAll, resolveLayer, type ReadoutAnswer, type UnitDocument } from '@halfsplit/core';

export interface CompareRequest {
  readonly document: UnitDocument;
}

/** Every readout as it came (no set) and as planned with each set, in the order of the readouts. */
export type ComparedSets = readonly {
  readonly set: string | undefined;
  readonly answers: readonly ReadoutAnswer[];
}[];

export const compareSets = ({ document }: CompareRequest): ComparedSets => {
  const { circuit, readouts } = document;
  const cameAs = { set: undefined, answers: evaluateAll(resolveLayer(circuit, 'found'), readouts, document) };
  return [
    cameAs,
    ...(circuit.sets ?? []).map(({ id }) => ({
      set: id,
      answers: evaluateAll(resolveLayer(circuit, 'planned', { set: id }), readouts, document),
    })),
  ];
};
