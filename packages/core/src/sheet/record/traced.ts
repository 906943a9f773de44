import type { SheetPart, UnitResource } from '@zemble/contract';
import type { Part } from '../../circuit/circuit/index.ts';
import { claimedNames, isTraced, retraced, withClaims } from '../../circuit/continuity/index.ts';
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

/** A unit into which a part is entered: what it says under the name that a net is shown by is that net. */
export function withClaimedNames(unit: UnitResource, entered: Part, id: string): UnitResource {
  const others = unit.parts.filter((p) => p.id !== id);
  const parts = others.map(({ part }) => readPart(part, part.ref, []));
  const claims = claimedNames({ ground: unit.ground, parts, beeps: unit.beeps }, entered);
  if (claims.length === 0) return unit;
  return {
    ...unit,
    parts: unit.parts.map((resource) => {
      const part = readPart(resource.part, resource.part.ref, []);
      const claimed = resource.id === id ? part : withClaims(part, claims);
      if (claimed === part) return resource;
      return { ...resource, part: { ...resource.part, saidPins: claimed.saidPins } as SheetPart };
    }),
  };
}
