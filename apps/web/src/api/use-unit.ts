import type { UnitResource } from '@zemble/contract';
import { useMemo, useState } from 'react';
import useSWR from 'swr';
import { getUnit } from './client.ts';
import { newUnit } from './new-unit.ts';
import { useOutboxState } from './outbox-context.tsx';
import { applyEntry } from './pending.ts';
import { unitKey } from './unit-news.ts';
import { useKept } from './use-kept.ts';

export interface UnitView {
  readonly unit: UnitResource | undefined;
  readonly error: Error | undefined;
}

/** A unit as the server has it, with this browser's own changes that are still on their way. */
export function useUnit(id: string): UnitView {
  // Edits arrive by the stream; fetching all of it again whenever the window is looked at would tell nothing new.
  const { data, error } = useSWR<UnitResource, Error>(
    unitKey(id),
    ([, unitId]: readonly [string, string]) => getUnit(unitId),
    { revalidateOnFocus: false, compare: Object.is },
  );
  useKept(data);
  const { pending } = useOutboxState();
  const unit = useMemo(() => {
    const mine = pending.filter((w) => w.unitId === id);
    const known = data ?? mine.map(newUnit).find((made) => made !== undefined);
    return known && mine.reduce((u, w) => applyEntry(u, w.change), known);
  }, [data, pending, id]);
  // What was made here is shown on, while what the server has of it is fetched.
  const [last, setLast] = useState(unit);
  if (unit && unit !== last) setLast(unit);
  return { unit: unit ?? (last?.id === id ? last : undefined), error };
}
