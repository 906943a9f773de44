import { emptyFields, type UnitResource } from '@zemble/contract';
import type { Write } from './act.ts';

/** Numbers are given by the server: a unit that it has not seen yet has none. */
export const NO_NUMBER = 0;

/** A unit as it was made here, for as long as the server has not seen it. */
export function newUnit({ unitId, change }: Write): UnitResource | undefined {
  if (change.type !== 'create-unit') return undefined;
  return {
    id: unitId,
    number: NO_NUMBER,
    sequence: 0,
    ...emptyFields(),
    ...change.values,
    stage: 'trace',
    lastActivityAt: change.at,
    lastActivity: null,
    ticks: {},
    versions: {},
    evidence: [],
    photos: [],
    parts: [],
    readings: [],
    readouts: [],
    changes: [],
    beeps: [],
    log: [],
  };
}
