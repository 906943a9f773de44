import type { PositionRow, UnitDocument } from '@halfsplit/core';
import { useEffect, useState } from 'react';
import { LatestRunner } from './runner.ts';

let runner: LatestRunner<UnitDocument, readonly PositionRow[]> | null = null;
const sharedRunner = () =>
  (runner ??= new LatestRunner<UnitDocument, readonly PositionRow[]>('shown', async (engine, document) =>
    engine.positions(document),
  ));

/** What each position of the switches and jacks of a unit does, computed in a worker. Null before the first answer. */
export function usePositions(document: UnitDocument): readonly PositionRow[] | null {
  const [rows, setRows] = useState<readonly PositionRow[] | null>(null);
  useEffect(() => {
    let isCurrent = true;
    sharedRunner().run(document, (answer) => {
      if (isCurrent) setRows(answer);
    });
    return () => {
      isCurrent = false;
    };
  }, [document]);
  return rows;
}
