import { LAYERS, type Layer } from '@halfsplit/contract';
import { BenchModel, NoOperatingPoint } from '../analysis/index.ts';
import type { Circuit, Readout, UnitDocument, Want } from '../circuit/index.ts';
import { HalfsplitError, problem } from '../errors.ts';
import type { Unit } from '../quantity/index.ts';
import type { ReadoutAnswer } from './readout-type.ts';
import { rangeOver, semitones } from './range.ts';
import { READOUTS } from './registry.ts';

/**
 * One readout on one model; `others` are the readouts that a range may be of. What it cannot be computed for is an
 * answer, not an exception.
 */
export function evaluateReadout(
  model: BenchModel,
  readout: Readout,
  others: readonly Readout[] = [],
): ReadoutAnswer {
  try {
    if (readout.kind === 'range') {
      const range = rangeOver(model, readout, others, (at, other) => evaluateReadout(at, other));
      const distance =
        readout['in'] === 'semitones' ? semitones(range.min, range.max) : range.max - range.min;
      return { ok: true, value: distance, range };
    }
    const value = READOUTS[readout.kind].compute(model, readout);
    if (Number.isFinite(value)) return { ok: true, value };
    return {
      ok: false,
      problem: problem('readout/not-defined', { where: readout.name, detail: 'there is nothing to read' }),
    };
  } catch (error) {
    if (error instanceof HalfsplitError || error instanceof NoOperatingPoint)
      return { ok: false, problem: error.problem };
    throw error;
  }
}

/** All readouts on one layer, with one operating point and one linearisation. */
export function evaluateAll(circuit: Circuit, readouts: readonly Readout[], layer: Layer): ReadoutAnswer[] {
  let model: BenchModel;
  try {
    model = new BenchModel(circuit, layer);
  } catch (error) {
    if (error instanceof HalfsplitError) return readouts.map(() => ({ ok: false, problem: error.problem }));
    throw error;
  }
  return readouts.map((r) => evaluateReadout(model, r, readouts));
}

export interface ReadoutRow {
  readonly id: string;
  readonly unit: Unit;
  readonly answers: Readonly<Record<Layer, ReadoutAnswer>>;
}

/** Computes something on every layer, once for layers on which no part has a value of its own. */
export function onDistinctLayers<T>(circuit: Circuit, compute: (layer: Layer) => T): T[] {
  const results: T[] = [];
  for (const layer of LAYERS) {
    const before = results.at(-1);
    const hasOwn = circuit.parts.some((p) => p[layer] !== null && p[layer] !== undefined);
    results.push(before !== undefined && !hasOwn ? before : compute(layer));
  }
  return results;
}

/** Every readout of a unit on every layer. */
export function readoutTable(document: UnitDocument): ReadoutRow[] {
  const { circuit, readouts } = document;
  const byLayer = onDistinctLayers(circuit, (layer) => evaluateAll(circuit, readouts, layer));
  return readouts.map((r, i) => ({
    id: r.id,
    unit: unitOf(r, readouts),
    answers: Object.fromEntries(LAYERS.map((layer, k) => [layer, byLayer[k]![i]!])) as Record<
      Layer,
      ReadoutAnswer
    >,
  }));
}

/** The unit a readout is read in; a range has that of the readout it is of. */
export function unitOf(readout: Readout, others: readonly Readout[] = []): Unit {
  if (readout.kind === 'range' && readout['in'] === 'semitones') return 'semitones';
  const other = readout.kind === 'range' ? others.find((r) => r.id === readout['of']) : undefined;
  return READOUTS[other?.kind ?? readout.kind].unit;
}

/** The wanted range as its two ends, either open; undefined when nothing is wanted. */
export function wantedRange(want: Want | undefined): { low: number; high: number } | undefined {
  if (!want) return undefined;
  const within = want.within ?? 0;
  const low = want.min ?? (want.target === undefined ? Number.NEGATIVE_INFINITY : want.target - within);
  const high = want.max ?? (want.target === undefined ? Number.POSITIVE_INFINITY : want.target + within);
  return Number.isFinite(low) || Number.isFinite(high) ? { low, high } : undefined;
}

/** How far a value stands outside its wanted range, in the readout's unit: 0 inside, negative below, positive above. */
export function outsideBy(value: number, want: Want | undefined): number {
  const range = wantedRange(want);
  if (!range) return 0;
  if (value < range.low) return value - range.low;
  return value > range.high ? value - range.high : 0;
}
