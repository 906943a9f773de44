import type { StockItem } from '@zemble/contract';
import { combine, type PairKind } from '../../base/quantity/index.ts';
import { fits, sameValue, type Drawer, type Wanted } from './stock.ts';

/** A value made of one item of the drawer, or of two in series or parallel. */
export interface MadeUp {
  readonly made: 'single' | 'series' | 'parallel';
  /** The items, that of the larger value first. */
  readonly of: readonly StockItem[];
  readonly value: number;
  /** (value - wanted) / wanted. */
  readonly error: number;
}

/**
 * The ways to make up a value with what is there, nearest first, one a wiring. In series the voltage divides and in parallel
 * the power does, but neither evenly: each item must bear what the whole must.
 *
 * @param wanted its value a number above zero
 * @param kind how two of them add up
 */
export function makeUp(
  drawer: Drawer,
  wanted: Wanted & { readonly value: number },
  kind: PairKind,
): MadeUp[] {
  const there = drawer.filter(
    (item): item is StockItem & { value: number } =>
      item.count > 0 && typeof item.value === 'number' && fits(item, wanted),
  );
  const singles = there.map((item) => way('single', [item], item.value, wanted.value));
  const pairs = (['series', 'parallel'] as const).map((wiring) => {
    let best: MadeUp | undefined;
    there.forEach((a, i) =>
      there.slice(i).forEach((b) => {
        if (a === b && a.count < 2) return;
        const value = combine(a.value, b.value, wiring, kind);
        if (best && Math.abs(best.value - wanted.value) <= Math.abs(value - wanted.value)) return;
        const of = a.value >= b.value ? [a, b] : [b, a];
        best = way(wiring, of, value, wanted.value);
      }),
    );
    return best;
  });
  const nearest = (ways: readonly MadeUp[]) =>
    [...ways].sort((a, b) => Math.abs(a.error) - Math.abs(b.error))[0];
  const one = nearest(singles);
  const isExact = one !== undefined && sameValue(one.value, wanted.value);
  return [one, ...(isExact ? [] : pairs)]
    .filter((w) => w !== undefined)
    .sort((a, b) => Math.abs(a.error) - Math.abs(b.error));
}

const way = (made: MadeUp['made'], of: readonly StockItem[], value: number, wanted: number): MadeUp => ({
  made,
  of,
  value,
  error: (value - wanted) / wanted,
});
