import type { Fields, QuantityField } from '../field.ts';
import type { QuantityKind } from '../quantity.ts';

/** Parameters of a device under their published names, each with its plain default. */
export type Params = Readonly<Record<string, QuantityField & { readonly usual: number }>>;

/**
 * One kind of part: everything that files, sheet lines, forms, schemas and checks need to know of it. A new kind is a
 * definition here and its equations in the core's devices, one file and one line of the registry each.
 */
export interface PartDefinition {
  /** Plain words for a sentence: "a carbon resistor" needs "resistor". */
  readonly words: string;
  /** Pins in the order of the unit file; a box has none of its own. */
  readonly pins: readonly string[];
  /** Pins that may be left open. */
  readonly optionalPins?: readonly string[];
  /** True when a part may have further pins under any name. */
  readonly hasFreePins?: boolean;
  /** What the main value is of; null for kinds known by a type number or a state. */
  readonly value: QuantityKind | null;
  /** Designator letters of the trade, the usual one first (IEC 81346-2 and common practice). */
  readonly letters: readonly string[];
  /** True when it cannot be computed without a main value. */
  readonly needsValue: boolean;
  /** True where the main value may be zero or below. */
  readonly isSigned?: boolean;
  /** False for a box: counted in tracing and finding, absent in analysis. */
  readonly hasModel: boolean;
  /** Pins between which direct current can flow. */
  readonly dcPaths: readonly (readonly [string, string])[];
  /** Fields beside the main value. */
  readonly fields: Fields;
  /** Parameters of its equations; they may stand beside the main value or in `params`. */
  readonly params: Params;
  /** Words of a sheet line that stand for this kind, beside its own name. */
  readonly kindWords?: readonly string[];
}

export const part = <const D extends PartDefinition>(definition: D): D => definition;
