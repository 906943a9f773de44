import type { SheetPart, UnitResource } from '@halfsplit/contract';
import { isTraced, retraced } from '../continuity/index.ts';
import { readPart } from '../formats/index.ts';

/** A unit whose parts' pins are on the nets that follow from what was said and what beeped; what nothing changes for stays the same. */
export function withTracedNets(unit: UnitResource): UnitResource {
  const parts = unit.parts.map(({ part }) => readPart(part, part.ref, []));
  const { ground, beeps } = unit;
  if (!isTraced({ parts, beeps })) return unit;
  const now = retraced({ ground, parts, beeps });
  return {
    ...unit,
    parts: unit.parts.map((resource, i) => {
      const part = now[i]!;
      if (part === parts[i]) return resource;
      const { saidPins: _old, ...rest } = resource.part;
      const said = part.saidPins === undefined ? {} : { saidPins: part.saidPins };
      return { ...resource, part: { ...rest, pins: part.pins, ...said } as SheetPart };
    }),
  };
}
