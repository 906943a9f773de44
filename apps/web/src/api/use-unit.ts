import type { StreamEvent, UnitResource } from '@halfsplit/contract';
import { applyEdits, DocumentMaker, type UnitDocument } from '@halfsplit/core';
import { useMemo, useState } from 'react';
import useSWR, { type useSWRConfig } from 'swr';
import { getUnit, getUnits } from './client.ts';
import { useOutboxState } from './outbox-context.tsx';
import { applyChange } from './pending.ts';
import { useKept } from './use-kept.ts';

export const unitKey = (id: string): readonly [string, string] => ['unit', id];

export const useUnits = () => useSWR('units', getUnits);

type Mutate = ReturnType<typeof useSWRConfig>['mutate'];

/** Brings what is known of a unit on by edits; it is fetched anew where some of them are missing. */
export async function applyNews(mutate: Mutate, news: StreamEvent): Promise<void> {
  let isBehind = 'reload' in news;
  const { unitId } = news;
  if ('edits' in news)
    await mutate<UnitResource>(
      unitKey(unitId),
      (known) => {
        const next = known && applyEdits(known, news.edits);
        isBehind = next === null;
        return next ?? known;
      },
      { revalidate: false },
    );
  if (isBehind) await mutate(unitKey(unitId));
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
  const unit = useMemo(
    () => data && pending.filter((w) => w.unitId === id).reduce((u, w) => applyChange(u, w.change), data),
    [data, pending, id],
  );
  return { unit, error };
}

/** The unit as the document that core computes with; what an edit does not touch stays the same object. */
export function useDocument(unit: UnitResource): UnitDocument {
  const [maker] = useState(() => new DocumentMaker());
  return useMemo(() => maker.make(unit), [maker, unit]);
}
