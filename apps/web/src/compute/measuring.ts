import type { Layer } from '@zemble/contract';
import {
  circuitAt,
  expectedInCircuit,
  ZembleError,
  judgePart,
  resolveLayer,
  shownVolts,
  weighDrifts,
  type ExpectedReading,
  type JudgedReading,
  type UnitDocument,
  type Verdict,
  type Weighed,
} from '@zemble/core';

/** Readings to be judged with the circuit around their parts; the key is what the verdict is asked for by. */
export interface JudgeRequest {
  readonly document: UnitDocument;
  readonly readings: readonly (JudgedReading & { readonly key: string; readonly ref: string })[];
}

/** Verdicts on readings, by their keys. */
export function judgeAll({ document, readings }: JudgeRequest): [string, Verdict][] {
  const circuit = circuitAt(document.circuit, 'proven');
  return readings.flatMap(({ key, ref, ...reading }): [string, Verdict][] => {
    const part = circuit.parts.find((p) => p.ref === ref);
    if (!part) return [];
    return [[key, judgePart(circuit, part, reading)]];
  });
}

/** What a meter should show across a part in its circuit; null where that cannot be computed. */
export const expectInCircuit = ({
  document,
  ref,
}: {
  readonly document: UnitDocument;
  readonly ref: string;
}): ExpectedReading | null => expectedInCircuit(document.circuit, ref);

/** What every drift does, and the fewest parts to make good. */
export const harmOf = ({ circuit, readouts, settings }: UnitDocument, includesSlow: boolean): Weighed =>
  weighDrifts(circuit, readouts, { includesSlow, ...(settings ? { settings } : {}) });

/** Volt by net, as a 10 Mohm voltmeter shows it on a layer; null where there is no operating point. */
export function shownOn({
  document: { circuit },
  layer,
}: {
  readonly document: UnitDocument;
  readonly layer: Layer;
}): Readonly<Record<string, number>> | null {
  try {
    return Object.fromEntries(shownVolts(resolveLayer(circuit, layer)));
  } catch (error) {
    if (error instanceof ZembleError) return null;
    throw error;
  }
}
