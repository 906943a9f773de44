import type { Needed, StockRow } from '@zemble/contract';
import { supplyFor, type Need, type Supply } from '@zemble/core';
import { useMemo } from 'react';
import useSWR from 'swr';
import { getNeeds, NEEDS_KEY } from '../../api/drawer.ts';
import { withoutPut } from '../../api/stock.ts';
import { useStockOnItsWay } from './use-drawer.ts';

export interface SupplyView {
  /** Parts of one sort that planned changes need, with where they come from. */
  readonly supplies: readonly (Supply & { readonly needs: readonly Needed[] })[];
  /** Parts of an item that are needed, by its id. */
  readonly reserved: ReadonlyMap<string, number>;
  /** Parts that came out of units and are not put away. */
  readonly out: readonly Needed[];
}

const NOTHING: readonly Needed[] = [];

/** What the planned changes of all units need, set against the drawer. */
export function useSupply(items: readonly StockRow[]): SupplyView {
  const { data } = useSWR(NEEDS_KEY, getNeeds, { keepPreviousData: true });
  const entries = useStockOnItsWay();
  const needs = data?.needs ?? NOTHING;
  return useMemo(() => {
    const wanted = needs.map(
      ({ unitId: _u, unitName: _n, changeId, changeName: _c, ref, ...what }): Need => ({
        wanted: what,
        ref,
        changeId,
      }),
    );
    const supplies = supplyFor(wanted, items);
    const reserved = new Map<string, number>();
    for (const { item, count } of supplies.flatMap((s) => s.reserved)) {
      const { id } = item as StockRow;
      reserved.set(id, (reserved.get(id) ?? 0) + count);
    }
    return {
      supplies: supplies.map((s) => ({ ...s, needs: s.of.map((i) => needs[i]!) })),
      reserved,
      out: withoutPut(data?.out ?? NOTHING, entries),
    };
  }, [needs, items, data, entries]);
}
