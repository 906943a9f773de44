import { USUAL_MAINS_HZ, type MainsHz } from '@zemble/contract';
import useSWR from 'swr';
import { useOutboxState } from './outbox-context.tsx';
import { getWorkshop, WORKSHOP_KEY } from './workshop.ts';

export interface Mains {
  /** Frequency of the mains, Hz: the usual one as long as nobody has said it. */
  readonly mainsHz: MainsHz;
  /** Whether nobody has said it yet, as far as is known. */
  readonly isUnsaid: boolean;
}

/** The mains of the workshop, as it will be when the server has what was entered here. */
export function useMains(): Mains {
  const { data } = useSWR(WORKSHOP_KEY, getWorkshop, { keepPreviousData: true });
  const { pending } = useOutboxState();
  const entered = pending.map(({ change }) => change).findLast((c) => c.type === 'set-workshop');
  const said = entered?.mainsHz ?? data?.mainsHz;
  return { mainsHz: said ?? USUAL_MAINS_HZ, isUnsaid: said === null };
}
