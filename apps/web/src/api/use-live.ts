import { API_ROOT, type UnitResource } from '@halfsplit/contract';
import { useEffect, useRef } from 'react';
import { unstable_serialize, useSWRConfig } from 'swr';
import { unitKey } from './use-unit.ts';

/**
 * Fetches the unit again as soon as another page has changed it. The browser reconnects by itself, and the server begins
 * with the version that is, so that nothing is missed while nobody listened.
 */
export function useLive(unit: UnitResource): void {
  const { mutate, cache } = useSWRConfig();
  const { id } = unit;
  const newest = useRef(0);
  // An answer to this page's own write can overtake a newer fetch, which is then thrown away: fetch again.
  useEffect(() => {
    if (unit.version < newest.current) void mutate(unitKey(id));
  }, [unit, id, mutate]);
  useEffect(() => {
    newest.current = 0;
    const events = new EventSource(`${API_ROOT}/units/${id}/events`);
    events.addEventListener('version', (event) => {
      const { version } = JSON.parse((event as MessageEvent<string>).data) as { version: number };
      newest.current = Math.max(newest.current, version);
      const known = cache.get(unstable_serialize(unitKey(id)))?.data as UnitResource | undefined;
      if (!known || known.version < version) void mutate(unitKey(id));
    });
    return () => events.close();
  }, [id, mutate, cache]);
}
