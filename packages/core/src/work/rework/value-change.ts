import { isPassive, KINDS, type LayerPart } from '../../circuit/circuit/index.ts';
import type { PairKind } from '../../base/quantity/index.ts';

/** One part's new value and how it is made up. */
export interface ValueChange {
  readonly ref: string;
  readonly from: number;
  readonly value: number;
  readonly made: 'single' | 'series' | 'parallel';
  /** The preferred values it is made of, larger first. */
  readonly of: readonly number[];
  /** Where each of them lies in the drawer, null for one that must be bought; absent where no drawer was asked. */
  readonly places?: readonly (string | null)[];
}

/** True for parts whose value the solver can turn. */
export const canChange = (part: LayerPart): boolean =>
  isPassive(part.kind) && !GIVEN.has(part.kind) && typeof part.value === 'number';

/** What a unit is made for is no value to turn. */
const GIVEN: ReadonlySet<LayerPart['kind']> = new Set(['speaker', 'headphone', 'load']);

/** How two of a part's kind add up. */
export function pairKindOf(part: Pick<LayerPart, 'ref' | 'kind'>): PairKind {
  const { value } = KINDS[part.kind];
  return value === 'capacitor' ? 'capacitor' : value === 'inductor' ? 'inductor' : 'resistor';
}

export const singleChange = (ref: string, from: number, value: number): ValueChange => ({
  ref,
  from,
  value,
  made: 'single',
  of: [value],
});

export const valuesOf = (changes: readonly ValueChange[]): ReadonlyMap<string, number> =>
  new Map(changes.map((c) => [c.ref, c.value]));
