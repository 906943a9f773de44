import { API_ROOT, type UnitResource } from '@zemble/contract';
import { useEffect } from 'react';

/** Cache in which the service worker keeps what the server answered. */
const CACHE = 'bench';
/** Edits within this time are kept together, ms. */
const GATHER_MS = 800;

/**
 * Keeps a unit as the server has it now for when the server is away: it was fetched once, and edits have come since. Where
 * the browser keeps nothing, the page works on without.
 */
export function useKept(unit: UnitResource | undefined): void {
  useEffect(() => {
    if (!unit || !('caches' in globalThis)) return;
    const timer = setTimeout(() => {
      const body = new Response(JSON.stringify(unit), { headers: { 'content-type': 'application/json' } });
      void caches
        .open(CACHE)
        .then((cache) => cache.put(`${API_ROOT}/units/${unit.id}`, body))
        .catch(() => undefined);
    }, GATHER_MS);
    return () => clearTimeout(timer);
  }, [unit]);
}
