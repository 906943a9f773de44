import type { StreamEvent, UnitResource, UnitSummary } from '@zemble/contract';
import { applyEdits } from '@zemble/core';
import { useMemo, useState } from 'react';
import useSWR, { unstable_serialize, type useSWRConfig } from 'swr';
import { getUnit, getUnits } from './client.ts';
import { useOutboxState } from './outbox-context.tsx';
import { newUnit } from './new-unit.ts';
import { applyEntry } from './pending.ts';
import { useKept } from './use-kept.ts';

export const unitKey = (id: string): readonly [string, string] => ['unit', id];

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

type Known = Pick<ReturnType<typeof useSWRConfig>, 'mutate' | 'cache'>;

/** Brings what is known of a unit on by edits; it is fetched anew where it is not known, or some of them are missing. */
export async function applyNews({ mutate, cache }: Known, news: StreamEvent): Promise<void> {
  const { unitId } = news;
  const key = unitKey(unitId);
  // An update of nothing would have a fetch that is on its way thrown away.
  let isBehind = 'reload' in news || cache.get(unstable_serialize(key))?.data === undefined;
  if ('edits' in news && !isBehind)
    await mutate<UnitResource>(
      key,
      (known) => {
        const next = known && applyEdits(known, news.edits);
        isBehind = next === null;
        return next ?? known;
      },
      { revalidate: false },
    );
  if (isBehind) await mutate(key);
}

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
