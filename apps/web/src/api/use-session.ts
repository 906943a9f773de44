import { sessionSchema, type Session } from '@zemble/contract';
import { useEffect } from 'react';
import useSWR, { useSWRConfig } from 'swr';
import { z } from 'zod';
import { ask, SIGNED_OUT } from './client.ts';

const KEY = 'session';
const done = z.object({ ok: z.literal(true) });
/** Where the browser keeps who was here last, for when the server is away. */
export const PERSON_KEY = 'zemble.person';
/** What the service worker keeps of units. */
const KEPT_TO_READ = ['bench', 'bench-photos'];

/** Units that are kept to read go with who might read them. */
export async function forgetKept(): Promise<void> {
  if ('caches' in globalThis) for (const name of KEPT_TO_READ) await caches.delete(name);
}

/** Who is signed in on this device; undefined until it is known, as while the server is away. */
export function useSession(): Session | undefined {
  const { data, mutate } = useSWR(KEY, () => ask('GET', '/session', sessionSchema), {
    revalidateOnFocus: false,
  });
  useEffect(() => {
    const look = () => void mutate();
    addEventListener(SIGNED_OUT, look);
    return () => removeEventListener(SIGNED_OUT, look);
  }, [mutate]);
  return data;
}

/** The name of who is signed in; null where people have no names, or while it is not known. */
export function useMyName(): string | null {
  const session = useSession();
  return session?.state === 'signed-in' ? session.person.name : null;
}

export interface SessionActions {
  /** Carries out what signs somebody in; everything that was refused meanwhile is asked for again. */
  readonly enter: (path: '/session' | '/people/first' | '/pairings/redeem', body: object) => Promise<void>;
  /** Signs out, here or everywhere; what is kept here of the bench goes too. */
  readonly leave: (everywhere: boolean) => Promise<void>;
}

export function useSessionActions(): SessionActions {
  const { mutate } = useSWRConfig();
  return {
    async enter(path, body) {
      const session = await ask('POST', path, sessionSchema, body);
      await mutate(KEY, session, { revalidate: false });
      await mutate((key) => key !== KEY);
      // What waits to be sent need not wait longer.
      dispatchEvent(new Event('online'));
    },
    async leave(everywhere) {
      await ask('POST', '/session/end', done, { everywhere });
      localStorage.removeItem(PERSON_KEY);
      await forgetKept();
      location.assign('/');
    },
  };
}
