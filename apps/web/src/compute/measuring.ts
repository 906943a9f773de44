import type { ReadingCondition } from '@halfsplit/contract';
import {
  judgeInCircuit,
  rankDrifts,
  smallestReplacement,
  type Drift,
  type Replacement,
  type UnitDocument,
  type Verdict,
} from '@halfsplit/core';

/** A reading to be judged with the circuit around its part. */
export interface JudgeRequest {
  readonly document: UnitDocument;
  readonly readings: readonly {
    readonly ref: string;
    readonly value: number | 'open' | 'short';
    readonly condition: ReadingCondition;
  }[];
}

/** Verdicts on readings, by the part's designator. */
export const judgeAll = ({ document, readings }: JudgeRequest): [string, Verdict][] =>
  readings.flatMap(({ ref, ...reading }): [string, Verdict][] => {
    const part = document.circuit.parts.find((p) => p.ref === ref);
    return part ? [[ref, judgeInCircuit(document.circuit, part, reading)]] : [];
  });

export interface Harm {
  readonly drifts: readonly Drift[];
  readonly replacement: Replacement;
}

/** What every drift does, and the fewest parts to make good. */
export const harmOf = ({ circuit, readouts }: UnitDocument): Harm => ({
  drifts: rankDrifts(circuit, readouts),
  replacement: smallestReplacement(circuit, readouts),
});
