import type { UnitResource } from '@halfsplit/contract';
import { App } from 'antd';
import {
  createContext,
  use,
  useEffect,
  useMemo,
  useState,
  useSyncExternalStore,
  type ReactNode,
} from 'react';
import { useSWRConfig } from 'swr';
import { sendWrite } from './client.ts';
import { Outbox, type OutboxState } from './outbox.ts';
import type { Change, Write } from './pending.ts';
import { unitKey } from './use-unit.ts';

const Context = createContext<Outbox | null>(null);
const STORAGE_KEY = 'halfsplit.outbox';

const store = {
  load(): readonly Write[] {
    try {
      return JSON.parse(localStorage.getItem(STORAGE_KEY) ?? '[]') as Write[];
    } catch {
      return [];
    }
  },
  save(writes: readonly Write[]): void {
    localStorage.setItem(STORAGE_KEY, JSON.stringify(writes));
  },
};

export function OutboxProvider({ children }: { children: ReactNode }) {
  const { mutate } = useSWRConfig();
  const { notification } = App.useApp();
  const [outbox] = useState(
    () =>
      new Outbox({
        store,
        send: sendWrite,
        onUnit: (unit) => {
          const newer = (known?: UnitResource) => (known && known.version > unit.version ? known : unit);
          void mutate<UnitResource>(unitKey(unit.id), newer, { revalidate: false });
          void mutate('units');
        },
        onRefused: (_write, problem) =>
          notification.error({ title: problem.detail, description: problem.hint, duration: 0 }),
        wait: (ms) => new Promise((resolve) => setTimeout(resolve, ms)),
      }),
  );
  useEffect(() => void outbox.run(), [outbox]);
  return <Context value={outbox}>{children}</Context>;
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
export function useChange(unitId: string): (change: Change) => void {
  const outbox = useOutbox();
  return useMemo(() => (change: Change) => outbox.add(unitId, change), [outbox, unitId]);
}
