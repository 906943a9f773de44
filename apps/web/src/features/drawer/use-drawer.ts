import type { StockRow } from '@zemble/contract';
import { useMemo } from 'react';
import useSWR from 'swr';
import { DRAWER_KEY, getDrawer, isStockEntry, type StockEntry } from '../../api/drawer.ts';
import { applyStock } from '../../api/stock.ts';
import { useOutboxState } from '../../api/outbox-context.tsx';

const NOTHING: readonly StockRow[] = [];

export interface DrawerView {
  /** As they will be when all that was entered here is on the server. */
  readonly items: readonly StockRow[];
  readonly isLoading: boolean;
  /** Why it cannot be shown. */
  readonly sentence: string | null;
}

/** What was entered into the drawer here and is on its way. */
export function useStockOnItsWay(): readonly StockEntry[] {
  const { pending } = useOutboxState();
  return useMemo(() => pending.map(({ change }) => change).filter(isStockEntry), [pending]);
}

/** What the workshop has; the last that was seen while the server is away. */
export function useDrawer(): DrawerView {
  const { data, error, isLoading } = useSWR(DRAWER_KEY, getDrawer, { keepPreviousData: true });
  const entries = useStockOnItsWay();
  const known = data?.items ?? NOTHING;
  return {
    items: useMemo(() => entries.reduce(applyStock, known), [entries, known]),
    isLoading,
    sentence: error instanceof Error && !data ? error.message : null,
  };
}
