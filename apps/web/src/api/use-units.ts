import type { UnitSummary } from '@zemble/contract';
import { useMemo } from 'react';
import useSWR from 'swr';
import { getUnits } from './client.ts';
import { newUnit } from './new-unit.ts';
import { useOutboxState } from './outbox-context.tsx';

/** All units, with those made here that the server has not seen yet. */
export function useUnits() {
  const { data, error } = useSWR<UnitSummary[], Error>('units', getUnits);
  const { pending } = useOutboxState();
  const units = useMemo(() => {
    const made = pending.map(newUnit).filter((u) => u && !data?.some((known) => known.id === u.id));
    return data || made.length > 0
      ? [...(data ?? []), ...made.map((u) => ({ ...u!, partCount: 0, measuredCount: 0 }))]
      : undefined;
  }, [data, pending]);
  return { units, error };
}
