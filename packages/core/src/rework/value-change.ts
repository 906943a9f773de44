import { isPassive, KINDS, type LayerPart } from '../circuit/index.ts';
import { bestPair, nearestPreferred, stepPreferred, type ESeries, type PairKind } from '../quantity/index.ts';

/** One part's new value and how it is made up. */
export interface ValueChange {
  readonly ref: string;
  readonly from: number;
  readonly value: number;
  readonly made: 'single' | 'series' | 'parallel';
  /** The preferred values it is made of, larger first. */
  readonly of: readonly number[];
}

/** True for parts whose value the solver can turn. */
export const canChange = (part: LayerPart): boolean => isPassive(part.kind) && typeof part.value === 'number';

function pairKindOf(part: Pick<LayerPart, 'ref' | 'kind'>): PairKind {
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

/** Values of a series next to an exact one, and the pairs that come closest. */
export function buildable(
  part: Pick<LayerPart, 'ref' | 'kind'>,
  from: number,
  exact: number,
  series: ESeries,
  withPairs: boolean,
): ValueChange[] {
  const { ref } = part;
  const nearest = nearestPreferred(exact, series);
  const other = stepPreferred(nearest, nearest > exact ? -1 : 1, series);
  const singles = [singleChange(ref, from, nearest), singleChange(ref, from, other)];
  if (!withPairs) return singles;
  const pairs = (['series', 'parallel'] as const).map((wiring): ValueChange => {
    const pair = bestPair(exact, series, wiring, pairKindOf(part));
    return { ref, from, value: pair.value, made: wiring, of: pair.values };
  });
  return [...singles, ...pairs];
}
