import type { PositionRow, UnitDocument } from '@zemble/core';
import { isSlow } from './is-slow.ts';
import { LatestRunner } from './runner.ts';
import { useComputed } from './use-computed.ts';
import { useLatest } from './use-latest.ts';

type Rows = readonly PositionRow[];

const quickRows = new LatestRunner<UnitDocument, Rows>('shown', async (engine, unit) =>
  engine.positions(unit, 'quick'),
);
const allRows = new LatestRunner<UnitDocument, Rows>('later', async (engine, unit) =>
  engine.positions(unit, 'all'),
);

/** What each position of a unit's controls does. */
export interface Positions {
  /** Null before the first answer. */
  readonly rows: Rows | null;
  /** False as long as the readouts that take runs in time are not computed. */
  readonly isWhole: boolean;
  /** Why there is no answer for the circuit of now. */
  readonly why: string | null;
}

/**
 * What each position of the switches, jacks and potentiometers of a unit does, computed in workers: the quick readouts first, then
 * all of them.
 */
export function usePositions(document: UnitDocument): Positions {
  const computed = useComputed(document);
  const hasSlow = computed.readouts.some(isSlow);
  const quick = useLatest(quickRows, computed);
  const all = useLatest(allRows, hasSlow ? computed : null);
  const made = all.isCurrent ? all.made : (quick.made ?? all.made);
  return {
    rows: made?.answer ?? null,
    isWhole: hasSlow ? all.isCurrent : quick.isCurrent,
    why: quick.why ?? all.why,
  };
}
