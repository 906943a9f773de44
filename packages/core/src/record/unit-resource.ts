import type { ReadingResource, UnitResource } from '@halfsplit/contract';
import type { Circuit, LayerValue, Part, UnitDocument } from '../circuit/index.ts';
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
export const documentFromResource = (unit: UnitResource, problems: Problem[] = []): UnitDocument =>
  new DocumentMaker().make(unit, problems);

/** A part as it was made, and what it was made from. */
interface MadePart {
  readonly from: UnitResource['parts'][number];
  readonly readings: readonly ReadingResource[];
  readonly part: Part;
}

/**
 * Makes the documents of one unit as it changes: whatever an edit did not touch stays the same object, so that only what
 * depends on the edit is computed anew.
 */
export class DocumentMaker {
  private parts = new Map<string, MadePart>();
  private last: UnitDocument | null = null;
  private from: UnitResource | null = null;

  make(unit: UnitResource, problems: Problem[] = []): UnitDocument {
    const { last, from } = this;
    const isSame = (...fields: readonly (keyof UnitResource)[]) =>
      from !== null && fields.every((field) => from[field] === unit[field]);
    const circuit = this.circuitOf(unit, problems);
    const readouts = last && isSame('readouts') ? last.readouts : readoutsOf(unit.readouts, problems);
    const described =
      last && isSame('name', 'kind', 'hazards', 'hazardNotes', 'notes')
        ? last.unit
        : {
            name: unit.name,
            kind: unit.kind,
            hazards: unit.hazards,
            hazardNotes: unit.hazardNotes,
            notes: unit.notes,
          };
    const isWhole =
      isSame('path', 'evidence', 'intake', 'settings') &&
      last?.circuit === circuit &&
      last.readouts === readouts &&
      last.unit === described;
    this.from = unit;
    if (isWhole) return last;
    this.last = {
      unit: described,
      circuit,
      ...(unit.path ? { path: unit.path } : {}),
      evidence: unit.evidence,
      intake: unit.intake,
      readouts,
      ...(unit.settings.length > 0 ? { settings: unit.settings } : {}),
    };
    return this.last;
  }

  private circuitOf(unit: UnitResource, problems: Problem[]): Circuit {
    const byPart = readingsByPart(unit);
    const made = new Map(
      unit.parts.map((resource) => {
        const readings = byPart.get(resource.id) ?? [];
        const known = this.parts.get(resource.id);
        const isKnown = known?.from === resource && isEqual(known.readings, readings);
        return [resource.id, isKnown ? known : madePart(resource, readings, problems)] as const;
      }),
    );
    this.parts = made;
    const parts = [...made.values()].map((m) => m.part);
    const known = this.last?.circuit;
    const isKnown =
      known?.ground === unit.ground && this.from?.models === unit.models && isEqual(known.parts, parts);
    if (isKnown) return known;
    const models = unit.models.map((m) => readModel(m, `Model ${m.name}`, problems));
    return { ground: unit.ground, parts, ...(models.length > 0 ? { models } : {}) };
  }
}

const isEqual = <T>(a: readonly T[], b: readonly T[]): boolean =>
  a.length === b.length && a.every((each, i) => each === b[i]);

function madePart(
  from: MadePart['from'],
  readings: readonly ReadingResource[],
  problems: Problem[],
): MadePart {
  const plain = readPart(from.part, from.part.ref, problems);
  const found: LayerValue = foundValue(plain, readings);
  const beside = foundParams(plain, readings);
  const part = {
    ...plain,
    ...(found === null ? {} : { found }),
    ...(Object.keys(beside).length > 0 ? { foundParams: beside } : {}),
  };
  return { from, readings, part };
}

function readoutsOf(readouts: UnitResource['readouts'], problems: Problem[]): UnitDocument['readouts'] {
  const files = readouts.map((r) => r.readout);
  return files.map((r) => readReadout(r, `Readout "${r.name}"`, problems, files));
}
