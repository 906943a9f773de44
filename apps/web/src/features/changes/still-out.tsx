import type { Temporary } from '@zemble/core';
import { useEffect } from 'react';
import { Keys } from '../../ui/keys.tsx';
import { useChangeActions, useLedger } from './use-changes.ts';

/** Something temporary that was just done: one key puts it on the ledger until it is back. Nothing where it is there already. */
export function StillOut({ made, words }: { made: Temporary | null; words?: string }) {
  const ledger = useLedger();
  const { add } = useChangeActions();
  const refs = made?.steps.flatMap((s) =>
    s.do === 'remove' ? [s.ref] : s.do === 'lift' ? [s.pin.split('.')[0]!] : [],
  );
  const isThere =
    made !== null &&
    ledger.some((entry) =>
      made.condition === undefined
        ? entry.sentence.startsWith(made.name) || refs!.some((ref) => entry.refs.includes(ref))
        : entry.condition === made.condition,
    );
  const offered = isThere ? null : made;
  const put = () => {
    if (!offered) return;
    const { name, condition, steps } = offered;
    add({
      name,
      purpose: 'diagnosis',
      state: 'done',
      steps: steps as Parameters<typeof add>[0]['steps'],
      ...(condition === undefined ? {} : { condition }),
    });
  };
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!event.altKey || event.code !== 'KeyL') return;
      event.preventDefault();
      put();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  });
  if (!offered) return null;
  return (
    <button className="zb-link zb-dim" onClick={put}>
      {words ?? `${offered.name}: keep it on the ledger until it is back`} <Keys keys="Alt L" />
    </button>
  );
}
