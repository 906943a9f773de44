import type { PositionRow, UnitDocument } from '@zemble/core';
import { useEffect, useState } from 'react';
import { isSlow } from './is-slow.ts';
import { LatestRunner } from './runner.ts';
import { useComputed } from './use-computed.ts';

type Rows = readonly PositionRow[];

let runners: Readonly<Record<'quick' | 'all', LatestRunner<UnitDocument, Rows>>> | null = null;
const sharedRunners = () =>
  (runners ??= {
    quick: new LatestRunner<UnitDocument, Rows>('shown', async (engine, unit) =>
      engine.positions(unit, 'quick'),
    ),
    all: new LatestRunner<UnitDocument, Rows>('later', async (engine, unit) => engine.positions(unit, 'all')),
  });

/** What each position of a unit's controls does. */
export interface Positions {
  readonly rows: Rows;
  /** False as long as the readouts that take runs in time are not computed. */
  readonly isWhole: boolean;
}

/**
 * What each position of the switches, jacks and potentiometers of a unit does, computed in workers: the quick readouts first, then
 * all of them. Null before the first answer.
 */
export function usePositions(document: UnitDocument): Positions | null {
  const computed = useComputed(document);
  const [positions, setPositions] = useState<Positions | null>(null);
  useEffect(() => {
    let isCurrent = true;
    const { quick, all } = sharedRunners();
    const hasSlow = computed.readouts.some(isSlow);
    quick.run(computed, (rows) => {
      if (isCurrent) setPositions({ rows, isWhole: !hasSlow });
    });
    if (hasSlow)
      all.run(computed, (rows) => {
        if (isCurrent) setPositions({ rows, isWhole: true });
      });
    return () => {
      isCurrent = false;
    };
  }, [computed]);
  return positions;
}
