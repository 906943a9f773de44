import type { UnitResource } from '@halfsplit/contract';
import { documentFromResource, type UnitDocument } from '@halfsplit/core';
import { useMemo } from 'react';
import useSWR from 'swr';
import { getUnit, getUnits } from './client.ts';
import { useOutboxState } from './outbox-context.tsx';
import { applyChange } from './pending.ts';

export const unitKey = (id: string): readonly [string, string] => ['unit', id];

export const useUnits = () => useSWR('units', getUnits);

export interface UnitView {
  readonly unit: UnitResource | undefined;
  readonly error: Error | undefined;
}

/** A unit as the server has it, with this browser's own changes that are still on their way. */
export function useUnit(id: string): UnitView {
  const { data, error } = useSWR<UnitResource, Error>(unitKey(id), ([, unitId]: readonly [string, string]) =>
    getUnit(unitId),
  );
  const { pending } = useOutboxState();
  const unit = useMemo(
    () => data && pending.filter((w) => w.unitId === id).reduce((u, w) => applyChange(u, w.change), data),
    [data, pending, id],
  );
  return { unit, error };
}

/** The unit as the document that core computes with. */
export const useDocument = (unit: UnitResource): UnitDocument =>
  useMemo(() => documentFromResource(unit), [unit]);
