import {
  UNIT_PLACES,
  type UnitList,
  type UnitListQuery,
  type UnitPlace,
  type UnitSummary,
} from '@zemble/contract';
import { useMemo } from 'react';
import useSWR, { useSWRConfig, type Cache } from 'swr';
import type { Write } from './act.ts';
import { newUnit } from './new-unit.ts';
import { useOutboxState } from './outbox-context.tsx';
import { getUnits, isUnitsKey, unitsKey } from './unit-list.ts';

export interface UnitsView {
  /** Undefined as long as nothing is known. */
  readonly units: readonly UnitSummary[] | undefined;
  /** How many there are of what was asked for; more than are listed where only some were. */
  readonly total: number;
  /** How many there are in each place. */
  readonly places: Readonly<Record<UnitPlace, number>>;
  readonly error: Error | undefined;
}

const NOWHERE = Object.fromEntries(UNIT_PLACES.map((place) => [place, 0])) as Record<UnitPlace, number>;

/** Units that were worked on last, with what was entered here that the server has not seen yet: new ones, and others put elsewhere. */
export function useUnits(query: Partial<UnitListQuery> = {}): UnitsView {
  const { place, find } = query;
  const { cache } = useSWRConfig();
  const { data, error } = useSWR<UnitList, Error>(unitsKey(query), getUnits, { keepPreviousData: true });
  const { pending } = useOutboxState();
  return useMemo(() => {
    const made = pending.flatMap((write) => {
      const unit = newUnit(write);
      return unit && !data?.units.some(({ id }) => id === unit.id)
        ? [{ ...unit, partCount: 0, measuredCount: 0 }]
        : [];
    });
    if (!data && made.length === 0) return { units: undefined, total: 0, places: NOWHERE, error };
    const moved = new Map(pending.flatMap(placePut));
    const known = new Map([...keptUnits(cache, moved), ...(data?.units ?? [])].map((u) => [u.id, u]));
    const places = { ...(data?.places ?? NOWHERE) };
    for (const { id } of made) if (!moved.has(id)) places.bench += 1;
    for (const [id, to] of moved) {
      const from = known.get(id)?.place;
      if (from !== undefined) places[from] -= 1;
      places[to] += 1;
    }
    const come = [...moved.keys()].flatMap((id) =>
      data?.units.some((u) => u.id === id) ? [] : (known.get(id) ?? []),
    );
    const units = [...made, ...come, ...(data?.units ?? [])]
      .map((u) => ({ ...u, place: moved.get(u.id) ?? u.place }))
      // What is shown of an earlier question, or while the server is away, answers to this one all the same.
      .filter((u) => (place === undefined || u.place === place) && answersTo(u, find ?? ''));
    return { units, total: (data?.total ?? 0) + units.length - (data?.units.length ?? 0), places, error };
  }, [data, error, pending, cache, place, find]);
}

/** Whether a unit is what somebody looks for, as the server finds it: by a piece of its name, or its number. */
const answersTo = ({ name, number }: UnitSummary, find: string): boolean =>
  name.toLowerCase().includes(find.toLowerCase()) || [String(number), `#${number}`].includes(find);

/** Where an entry puts a unit. */
const placePut = ({ unitId, change }: Write): [string, UnitPlace][] =>
  change.type === 'update-unit' && change.values.place !== undefined ? [[unitId, change.values.place]] : [];

/** Units as any list of them was kept that was shown here. */
function keptUnits(cache: Cache, which: ReadonlyMap<string, unknown>): UnitSummary[] {
  if (which.size === 0) return [];
  return [...cache.keys()]
    .filter(isUnitsKey)
    .flatMap((key) => (cache.get(key)?.data as UnitList | undefined)?.units ?? [])
    .filter(({ id }) => which.has(id));
}
