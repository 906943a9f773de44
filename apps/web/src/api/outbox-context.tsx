import {
  createContext,
  use,
  useCallback,
  useEffect,
  useMemo,
  useRef,
  useState,
  useSyncExternalStore,
  type ReactNode,
} from 'react';
import { useSWRConfig } from 'swr';
import { isServerThere, sendWrite, SIGNED_OUT } from './client.ts';
import { WORKSHOP_KEY, type WorkshopEntry } from './workshop.ts';
import { isUnitsKey } from './unit-list.ts';
import { DRAWER_KEY, DRAWER_LANE, NEEDS_KEY, type StockEntry } from './drawer.ts';
import { forgetKept, PERSON_KEY, useSession } from './use-session.ts';
import type { Entry } from './act.ts';
import { Outbox, type OutboxState, type Told } from './outbox.ts';
import { newId } from './new-id.ts';
import { browserStore } from './outbox-store.ts';
import { useNotices } from '../ui/notices.tsx';
import { moveOlder } from './older-outbox.ts';
import { applyNews, unitKey } from './unit-news.ts';

const Context = createContext<Outbox | null>(null);
const CHANNEL = 'zemble-outbox';
const LOCK = 'zemble-outbox';

/** One page of a browser sends at a time; where there are no locks, this page alone. */
const alone = (work: () => Promise<void>): Promise<void> =>
  'locks' in navigator ? navigator.locks.request(LOCK, work) : work();

/** A pause that ends early when the network comes back. */
const pause = (ms: number): Promise<void> =>
  new Promise((resolve) => {
    const end = () => {
      clearTimeout(timer);
      removeEventListener('online', end);
      resolve();
    };
    const timer = setTimeout(end, ms);
    addEventListener('online', end);
  });

/** A notice of a refusal goes by itself: what was refused stays, s. */
const NOTICE_S = 10;

/** The list of units is fetched once for all answers within this time, ms. */
const GATHER_MS = 500;

/** Something that is done once, a while after it was first asked for, however often it is asked for meanwhile. */
function useGathered(work: () => void): () => void {
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);
  const latest = useRef(work);
  useEffect(() => {
    latest.current = work;
  });
  return useCallback(() => {
    timer.current ??= setTimeout(() => {
      timer.current = null;
      latest.current();
    }, GATHER_MS);
  }, []);
}

export function OutboxProvider({ children }: { children: ReactNode }) {
  const { mutate, cache } = useSWRConfig();
  const notices = useNotices();
  const [store] = useState(browserStore);
  const [channel] = useState(() => new BroadcastChannel(CHANNEL));
  const refreshList = useGathered(() => void mutate(isUnitsKey));
  const [outbox] = useState(
    () =>
      new Outbox({
        store,
        send: sendWrite,
        onAnswer: async (answer, { change }) => {
          if (!('edits' in answer)) {
            await Promise.all([DRAWER_KEY, NEEDS_KEY, WORKSHOP_KEY].map((key) => mutate(key)));
            return;
          }
          const { unitId, edits } = answer;
          if (change.type === 'open-file')
            notices.success({
              title: `${change.fileName} is open`,
              description: 'It stands on the bench.',
              duration: NOTICE_S,
            });
          if (isOfTheList(change)) await mutate(isUnitsKey);
          else refreshList();
          // A tick and a change that is done take parts from the drawer, and put them back.
          if (TAKES_PARTS.has(change.type)) for (const key of [DRAWER_KEY, NEEDS_KEY]) void mutate(key);
          if (edits.length > 0) await applyNews({ mutate, cache }, { unitId, edits });
          // A new unit: the server has given it a number.
          else if (change.type === 'create-unit') await mutate(unitKey(unitId));
        },
        onRefused: (_write, problem) =>
          notices.error({
            title: problem.detail,
            description: `${problem.hint ?? ''} What you entered stands under “refused” at the top.`.trim(),
            duration: NOTICE_S,
          }),
        wait: pause,
        newKey: newId,
        now: () => performance.now(),
        alone,
        isServerThere,
        tell: (what) => channel.postMessage(what),
      }),
  );
  useEffect(() => {
    const onMessage = ({ data }: MessageEvent<Told>) => outbox.hear(data);
    channel.addEventListener('message', onMessage);
    // What is not kept here (yet, or at all) and not sent yet would be lost with the page.
    const onLeave = (event: BeforeUnloadEvent) => {
      if (outbox.hasUnkept()) event.preventDefault();
    };
    addEventListener('beforeunload', onLeave);
    void moveOlder(store)
      .catch(() => undefined)
      .then(() => outbox.load());
    return () => {
      channel.removeEventListener('message', onMessage);
      removeEventListener('beforeunload', onLeave);
    };
  }, [outbox, channel, store]);
  useWhoIsHere(outbox);
  return <Context value={outbox}>{children}</Context>;
}

/** Whether an entry changes which units there are in a place: the list shows it before the entry is let go. */
const isOfTheList = (change: Entry): boolean =>
  change.type === 'create-unit' || (change.type === 'update-unit' && change.values.place !== undefined);

/** Acts that may take parts from the drawer. */
const TAKES_PARTS: ReadonlySet<string> = new Set([
  'tick-step',
  'add-change',
  'update-change',
  'batch',
  'undo',
]);

/** Tells the outbox who is at the page. */
function useWhoIsHere(outbox: Outbox): void {
  const session = useSession();
  useEffect(() => {
    if (session?.state === 'signed-in') localStorage.setItem(PERSON_KEY, session.person.id);
    if (session?.state === 'open') localStorage.removeItem(PERSON_KEY);
    const me =
      session?.state === 'signed-in'
        ? session.person.id
        : session?.state === 'open'
          ? null
          : session === undefined
            ? (localStorage.getItem(PERSON_KEY) ?? undefined)
            : undefined;
    outbox.setMe(me);
  }, [outbox, session]);
  // What was kept to read goes with who might read it.
  useEffect(() => {
    const forget = () => void forgetKept();
    addEventListener(SIGNED_OUT, forget);
    return () => removeEventListener(SIGNED_OUT, forget);
  }, []);
}

export function useOutbox(): Outbox {
  const outbox = use(Context);
  if (!outbox) throw new Error('There is no outbox around this component.');
  return outbox;
}

export function useOutboxState(): OutboxState {
  const outbox = useOutbox();
  return useSyncExternalStore(outbox.subscribe, outbox.getSnapshot);
}

/** Changes one unit: shown at once, saved as soon as the server has it. */
export function useChange(unitId: string): (entry: Entry | null) => void {
  const outbox = useOutbox();
  return useMemo(
    () => (entry: Entry | null) => {
      // What changes nothing is not entered.
      const isNothing = entry === null || (entry.type === 'put-things' && entry.things.length === 0);
      if (!isNothing) void outbox.add(unitId, entry);
    },
    [outbox, unitId],
  );
}

/** Changes the drawer, or what holds for the whole workshop, in the same way. */
export function useWorkshopChange(): (entry: StockEntry | WorkshopEntry) => void {
  const outbox = useOutbox();
  return useCallback((entry: StockEntry | WorkshopEntry) => void outbox.add(DRAWER_LANE, entry), [outbox]);
}
