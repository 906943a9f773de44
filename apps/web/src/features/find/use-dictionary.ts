import {
  searchQuantities,
  type Circuit,
  type Measured,
  type PartGroup,
  type PartSearch,
  type Quantity,
  type tellingReadings,
  type UnitDocument,
} from '@zemble/core';
import { useEffect, useMemo, useState } from 'react';
import { searchAmongParts, type PlainEntry } from '../../compute/finding.ts';
import { startDictionary } from '../../compute/jobs.ts';
import { GIVEN_UP } from '../../compute/pool.ts';
import { LatestRunner } from '../../compute/runner.ts';
import { useLatest } from '../../compute/use-latest.ts';

export interface DictionaryView {
  readonly search: PartSearch | null;
  /** What was compared, and what may be measured next. */
  readonly quantities: readonly Quantity[];
  /** While faults are being simulated, how far; null when done. */
  readonly fraction: number | null;
  /** Why the faults could not be simulated. */
  readonly why: string | null;
}

/** Compares what was measured with every fault of some parts, simulated in two workers. */
export function useDictionary(
  circuit: Circuit,
  refs: readonly string[],
  measured: readonly Measured[],
): DictionaryView {
  const asked = JSON.stringify(measured.map((m) => m.quantity));
  const wanted = refs.join(' ');
  const quantities = useMemo(
    () => searchQuantities(circuit, JSON.parse(asked) as Quantity[]),
    [circuit, asked],
  );
  const [made, setMade] = useState<{ key: object; entries: readonly PlainEntry[] } | null>(null);
  const [failed, setFailed] = useState<{ key: object; why: string } | null>(null);
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
      (error: unknown) => {
        // Given up: another is on its way.
        if (!isCurrent || error === GIVEN_UP) return;
        setFraction(null);
        setFailed({ key: quantities, why: error instanceof Error ? error.message : String(error) });
      },
    );
    return () => {
      isCurrent = false;
      job.cancel();
    };
  }, [circuit, quantities, wanted]);
  const search = useMemo(
    () => (made && made.key === quantities ? searchAmongParts(made.entries, quantities, measured) : null),
    [made, quantities, measured],
  );
  return { search, quantities, fraction, why: failed?.key === quantities ? failed.why : null };
}

type Readings = ReturnType<typeof tellingReadings>;
const tellers = new LatestRunner<{ circuit: Circuit; group: PartGroup }, Readings>(
  'shown',
  async (engine, r) => engine.tellingReadings(r),
);

/** Readings in circuit that tell the members of a group apart, computed in a worker; none without a group. */
export function useTellingReadings(
  { circuit }: Pick<UnitDocument, 'circuit'>,
  group: PartGroup | null,
): { readonly readings: Readings; readonly isCurrent: boolean } {
  const members = group && group.members.length > 1 ? JSON.stringify(group) : '';
  const request = useMemo(
    () => (members === '' ? null : { circuit, group: JSON.parse(members) as PartGroup }),
    [circuit, members],
  );
  const { made, isCurrent } = useLatest(tellers, request);
  return { readings: isCurrent && made ? made.answer : [], isCurrent: request === null || isCurrent };
}
