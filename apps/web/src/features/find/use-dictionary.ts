import {
  searchQuantities,
  type Circuit,
  type PartGroup,
  type PartSearch,
  type Quantity,
  type tellingReadings,
  type UnitDocument,
} from '@zemble/core';
import { useEffect, useMemo, useState } from 'react';
import { searchAmongParts, type PlainEntry } from '../../compute/finding.ts';
import { startDictionary } from '../../compute/jobs.ts';
import { LatestRunner } from '../../compute/runner.ts';

export interface DictionaryView {
  readonly search: PartSearch | null;
  /** What was compared, and what may be measured next. */
  readonly quantities: readonly Quantity[];
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
    job.result.then(
      (entries) => {
        if (!isCurrent) return;
        setMade({ key: quantities, entries });
        setFraction(null);
      },
      // Given up: another is on its way.
      () => undefined,
    );
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
  return { search, quantities, fraction };
}

type Readings = ReturnType<typeof tellingReadings>;
let tellers: LatestRunner<{ circuit: Circuit; group: PartGroup }, Readings> | null = null;

/** Readings in circuit that tell the members of a group apart, computed in a worker; none without a group. */
export function useTellingReadings(
  { circuit }: Pick<UnitDocument, 'circuit'>,
  group: PartGroup | null,
): Readings {
  const [told, setTold] = useState<{ of: string; readings: Readings }>({ of: '', readings: [] });
  const members = group && group.members.length > 1 ? JSON.stringify(group) : '';
  useEffect(() => {
    if (members === '') return;
    let isCurrent = true;
    tellers ??= new LatestRunner('shown', async (engine, r) => engine.tellingReadings(r));
    tellers.run({ circuit, group: JSON.parse(members) as PartGroup }, (readings) => {
      if (isCurrent) setTold({ of: members, readings });
    });
    return () => {
      isCurrent = false;
    };
  }, [circuit, members]);
  return members !== '' && told.of === members ? told.readings : [];
}
