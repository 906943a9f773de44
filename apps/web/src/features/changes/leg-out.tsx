import type { Part } from '@halfsplit/core';
import { useEffect } from 'react';
import { Keys } from '../../ui/keys.tsx';
import { useChangeActions, useLedger } from './use-changes.ts';

/** After a reading with a leg lifted: one key puts the leg on the ledger until it is soldered back. */
export function LegOut({ part }: { part: Part }) {
  const ledger = useLedger();
  const { add } = useChangeActions();
  const isThere = ledger.some((entry) => entry.refs.includes(part.ref));
  const [pin] = Object.keys(part.pins);
  const put = () => {
    if (pin === undefined || isThere) return;
    add({
      name: `${part.ref} read by itself`,
      purpose: 'diagnosis',
      state: 'done',
      steps: [{ do: 'lift', pin: `${part.ref}.${pin}` }],
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
  if (pin === undefined || isThere) return null;
  return (
    <button className="hs-link hs-dim" onClick={put}>
      its leg is still out <Keys keys="Alt L" />
    </button>
  );
}
