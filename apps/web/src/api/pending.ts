import type { UnitResource } from '@zemble/contract';
import { applyAct } from '@zemble/core';
import type { Entry } from './act.ts';

/** The unit as it will be when the server has the entry. */
export function applyEntry(unit: UnitResource, entry: Entry): UnitResource {
  switch (entry.type) {
    // A picture is shown when the server has made it fit, a file when it has read it.
    case 'create-unit':
    case 'open-file':
    case 'add-photo':
      return unit;
    // The drawer and the workshop are no part of a unit.
    case 'set-workshop':
    case 'add-stock':
    case 'change-stock':
    case 'remove-stock':
    case 'put-out':
      return unit;
    case 'batch':
      return entry.acts.reduce(applyAct, unit);
    default:
      return applyAct(unit, entry);
  }
}
