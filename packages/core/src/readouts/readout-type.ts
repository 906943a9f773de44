import type { AdjointSlopes, BenchModel } from '../analysis/index.ts';
import { valueOf, type QuantityKind, type Unit } from '../quantity/index.ts';
import type { Readout } from '../circuit/index.ts';
import { HalfsplitError, type Problem } from '../errors.ts';

/** A readout's answer on one layer: a number, or the sentence that says why there is none. */
export type ReadoutAnswer =
  | {
      readonly ok: true;
      readonly value: number;
      readonly range?: { readonly min: number; readonly max: number };
    }
  | { readonly ok: false; readonly problem: Problem };

/** What a kind of readout is: its unit, and how it is computed from a model. */
export interface ReadoutType {
  readonly unit: Unit;
  /** What an input field for it is of. */
  readonly quantity: QuantityKind;
  /** True when it takes a run in time, or many: screens compute it after the others. */
  readonly isSlow?: boolean;
  /** Short words for a list: "gain from in to out at 1 kHz". */
  describe(readout: Readout): string;
  /** Throws HalfsplitError or NoOperatingPoint where it is not defined. */
  compute(model: BenchModel, readout: Readout): number;
  /** d value / d (relative deviation) of every part by the adjoint system, where the kind has one. */
  slopes?(adjoint: AdjointSlopes, readout: Readout): number[];
}

/** A field that must be a name. Throws `readout/not-defined`. */
export function nameField(readout: Readout, field: string): string {
  const value = readout[field];
  if (typeof value === 'string' && value !== '') return value;
  throw new HalfsplitError('readout/not-defined', { where: readout.name, detail: `"${field}" is missing` });
}

/** A field that must be a number above zero, given as a number or as text such as "1k". Throws `readout/not-defined`. */
export function positiveField(readout: Readout, field: string, usual?: number): number {
  const value = readout[field] ?? usual;
  const number = typeof value === 'string' ? valueOf(value, { kind: 'number' }) : value;
  if (typeof number === 'number' && Number.isFinite(number) && number > 0) return number;
  throw new HalfsplitError('readout/not-defined', {
    where: readout.name,
    detail: `"${field}" must be above zero`,
  });
}
