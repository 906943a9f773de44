import type { ReadingResource, UnitResource } from '@halfsplit/contract';
import type { LayerValue, Part, Readout, UnitDocument } from '../circuit/index.ts';
import { foundValue } from '../meter/index.ts';
import { normalisePart } from './unit-file.ts';

/** Readings of one part or readout that still count, oldest first. */
export function readingsOf(
  unit: UnitResource,
  subject: { partId?: string; readoutId?: string },
): ReadingResource[] {
  return unit.readings.filter(
    (r) =>
      !r.withdrawn && r.partId === (subject.partId ?? null) && r.readoutId === (subject.readoutId ?? null),
  );
}

/** Readings of parts that still count, oldest first, by the part. */
export function readingsByPart(unit: Pick<UnitResource, 'readings'>): ReadonlyMap<string, ReadingResource[]> {
  const found = new Map<string, ReadingResource[]>();
  for (const r of unit.readings) {
    if (r.partId === null || r.withdrawn) continue;
    const known = found.get(r.partId);
    if (known) known.push(r);
    else found.set(r.partId, [r]);
  }
  return found;
}

/** A unit as the server keeps it, as the document that core computes with: the found layer comes from the readings. */
export function documentFromResource(unit: UnitResource): UnitDocument {
  const byPart = readingsByPart(unit);
  const parts = unit.parts.map(({ id, part }): Part => {
    const plain = normalisePart(part, part.ref, []);
    const found: LayerValue = foundValue(plain, byPart.get(id) ?? []);
    return found === null ? plain : { ...plain, found };
  });
  return {
    unit: { name: unit.name, kind: unit.kind, hazards: unit.hazards, notes: unit.notes },
    circuit: { ground: unit.ground, parts, ...(unit.models.length > 0 ? { models: unit.models } : {}) },
    ...(unit.path ? { path: unit.path } : {}),
    evidence: unit.evidence,
    intake: unit.intake,
    readouts: unit.readouts.map((r) => r.readout as unknown as Readout),
  };
}
