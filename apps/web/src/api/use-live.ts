import type { UnitResource } from '@zemble/contract';
import { useEffect, useRef, useState } from 'react';
import { useSWRConfig } from 'swr';
import { EditStream } from './edit-stream.ts';
import { useOutbox } from './outbox-context.tsx';
import { applyNews } from './unit-news.ts';

let stream: EditStream | null = null;
const hearers = new Set<ConstructorParameters<typeof EditStream>[0]>();

/** Carries out on this page what other pages, and other people, do to the unit that it shows. */
export function useLive(unit: UnitResource): void {
  const { mutate, cache } = useSWRConfig();
  const outbox = useOutbox();
  const { id } = unit;
  const sequence = useRef(unit.sequence);
  useEffect(() => {
    sequence.current = unit.sequence;
  }, [unit.sequence]);
  const [live] = useState(() => (stream ??= new EditStream((news) => hearers.forEach((hear) => hear(news)))));
  useEffect(() => {
    const hear: ConstructorParameters<typeof EditStream>[0] = (news) => {
      const isShown = news.unitId === id ? applyNews({ mutate, cache }, news) : Promise.resolve();
      void isShown.then(() => 'edits' in news && outbox.settled(news.edits));
    };
    hearers.add(hear);
    const leave = live.follow(id, () => sequence.current);
    return () => {
      hearers.delete(hear);
      leave();
    };
  }, [id, live, mutate, cache, outbox]);
}
