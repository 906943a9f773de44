import type { UnitResource } from '@zemble/contract';
import { markedNumber } from '@zemble/core';
import type { RailStage } from './stages.ts';

/** Is there nothing left to do in a stage? */
export function isStageDone(stage: RailStage, unit: UnitResource, problemCount: number): boolean {
  const resistive = unit.parts.filter(
    (p) => markedNumber(p.part) !== null && p.part.kind !== 'supply' && p.part.kind !== 'signal',
  );
  const measured = new Set(unit.readings.filter((r) => !r.withdrawn).map((r) => r.partId));
  switch (stage) {
    case 'intake':
      return (unit.intake.heard ?? []).length > 0 && unit.hazards.length > 0;
    case 'find':
      return (unit.intake.convicted ?? []).length > 0;
    case 'trace':
      return unit.parts.length > 0 && problemCount === 0;
    case 'measure':
      return resistive.length > 0 && resistive.every((p) => measured.has(p.id));
    case 'rework':
      return unit.changes.some(({ change }) => change.state === 'planned' || change.state === 'done');
    case 'build': {
      const planned = unit.changes.filter(({ change }) => change.state === 'planned');
      return planned.length === 0 && unit.changes.some(({ change }) => change.state === 'done');
    }
    case 'log':
      return false;
  }
}
