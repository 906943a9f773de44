import type { StockRow } from '@zemble/contract';
import useSWR from 'swr';
import { DRAWER_KEY, getDrawer } from '../../api/drawer.ts';

const NOTHING: readonly StockRow[] = [];

export interface DrawerView {
  readonly items: readonly StockRow[];
  readonly isLoading: boolean;
  /** Why it cannot be shown. */
  readonly sentence: string | null;
  readonly reload: () => Promise<unknown>;
}

/** What the workshop has; the last that was seen while the server is away. */
export function useDrawer(): DrawerView {
  const { data, error, isLoading, mutate } = useSWR(DRAWER_KEY, getDrawer, { keepPreviousData: true });
  return {
    items: data?.items ?? NOTHING,
    isLoading,
    sentence: error instanceof Error && !data ? error.message : null,
    reload: () => mutate(),
  };
}
