import type { UnitResource } from '@halfsplit/contract';
import { useEffect } from 'react';
import type { Change } from '../api/pending.ts';
import { RAIL } from './stages.ts';

/** Keeps the stage that a unit is in: the one last worked in. */
export function useStage(unit: UnitResource, path: string, change: (change: Change) => void): void {
  const stage = RAIL.find((r) => path.endsWith(`/${r.stage}`))?.stage;
  const { stage: kept, version } = unit;
  useEffect(() => {
    if (stage !== undefined && stage !== kept)
      change({ type: 'update-unit', seen: version, values: { stage } });
    // The version does not matter to a stage, and would send it again after every change.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [stage, kept, change]);
}
