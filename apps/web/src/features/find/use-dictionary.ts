import { searchQuantities, type Circuit, type PartSearch, type Quantity } from '@halfsplit/core';
import { useEffect, useMemo, useState } from 'react';
import { searchAmongParts, type PlainEntry } from '../../compute/finding.ts';
import { startDictionary } from '../../compute/runner.ts';

export interface DictionaryView {
  readonly search: PartSearch | null;
  /** While faults are being simulated, how far; null when done. */
  readonly fraction: number | null;
}

/** Compares what was measured with every fault of some parts, simulated in two workers. */
export function useDictionary(
  circuit: Circuit,
  refs: readonly string[],
  measured: readonly { readonly quantity: Quantity; readonly value: number | null }[],
): DictionaryView {
  const asked = JSON.stringify(measured.map((m) => m.quantity));
  const wanted = refs.join(' ');
  const quantities = useMemo(
    () => searchQuantities(circuit, JSON.parse(asked) as Quantity[]),
    [circuit, asked],
  );
  const [made, setMade] = useState<{ key: object; entries: readonly PlainEntry[] } | null>(null);
  const [fraction, setFraction] = useState<number | null>(null);
  useEffect(() => {
    if (wanted === '') return;
    let isCurrent = true;
    const job = startDictionary({ circuit, quantities, refs: wanted.split(' ') }, (f) => {
      if (isCurrent) setFraction(f);
    });
    void job.result.then((entries) => {
      if (!isCurrent) return;
      setMade({ key: quantities, entries });
      setFraction(null);
    });
    return () => {
      isCurrent = false;
      job.cancel();
    };
  }, [circuit, quantities, wanted]);
  const search = useMemo(
    () =>
      made && made.key === quantities
        ? searchAmongParts(
            made.entries,
            quantities,
            measured.map((m) => m.value),
          )
        : null,
    [made, quantities, measured],
  );
  return { search, fraction };
}
