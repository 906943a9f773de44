import type { UnitResource } from '@zemble/contract';
import { useEffect, useRef } from 'react';
import type { Entry } from '../api/act.ts';
import { RAIL } from './stages.ts';

/** Keeps the stage that a unit is in, the one last worked in: told once each time another is opened. */
export function useStage(unit: UnitResource, path: string, change: (change: Entry) => void): void {
  const stage = RAIL.find((r) => path.endsWith(`/${r.stage}`))?.stage;
  const told = useRef(unit.stage);
  useEffect(() => {
    if (stage === undefined || stage === told.current) return;
    told.current = stage;
    change({ type: 'update-unit', seen: {}, values: { stage } });
  }, [stage, change]);
}
