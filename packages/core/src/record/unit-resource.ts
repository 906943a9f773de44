import type { ReadingResource, UnitResource } from '@halfsplit/contract';
import type { LayerValue, Part, UnitDocument } from '../circuit/index.ts';
import type { Problem } from '../errors.ts';
import { readModel, readPart, readReadout } from '../formats/index.ts';
import { foundParams, foundValue } from '../judge/index.ts';

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

/**
 * A unit as the server keeps it, as the document that core computes with: the found layer comes from the readings. What
 * cannot be read of an older record is left out of the document and said in `problems`.
 */
export function documentFromResource(unit: UnitResource, problems: Problem[] = []): UnitDocument {
  const byPart = readingsByPart(unit);
  const parts = unit.parts.map(({ id, part }): Part => {
    const plain = readPart(part, part.ref, problems);
    const readings = byPart.get(id) ?? [];
    const found: LayerValue = foundValue(plain, readings);
    const beside = foundParams(plain, readings);
    return {
      ...plain,
      ...(found === null ? {} : { found }),
      ...(Object.keys(beside).length > 0 ? { foundParams: beside } : {}),
    };
  });
  const files = unit.readouts.map((r) => r.readout);
  const models = unit.models.map((m) => readModel(m, `Model ${m.name}`, problems));
  return {
    unit: {
      name: unit.name,
      kind: unit.kind,
      hazards: unit.hazards,
      hazardNotes: unit.hazardNotes,
      notes: unit.notes,
    },
    circuit: { ground: unit.ground, parts, ...(models.length > 0 ? { models } : {}) },
    ...(unit.path ? { path: unit.path } : {}),
    evidence: unit.evidence,
    intake: unit.intake,
    readouts: files.map((r) => readReadout(r, `Readout "${r.name}"`, problems, files)),
    ...(unit.settings.length > 0 ? { settings: unit.settings } : {}),
  };
}
