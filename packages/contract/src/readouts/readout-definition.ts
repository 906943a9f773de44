import type { Fields } from '../field.ts';
import type { QuantityKind, Unit } from '../quantity.ts';

/**
 * One kind of readout: what it reads, in which unit, and of which fields. A new kind is a definition here and its
 * computation in the core's readouts, one file and one line of the registry each.
 */
export interface ReadoutDefinition {
  /** What a form calls it: "Gain at a frequency". */
  readonly words: string;
  readonly unit: Unit;
  /** What a wanted value or a bench reading of it is of. */
  readonly quantity: QuantityKind;
  /** True when it takes a run in time, or many: screens compute it after the others. */
  readonly isSlow?: boolean;
  readonly fields: Fields;
}

export const readout = <const D extends ReadoutDefinition>(definition: D): D => definition;
