import {
  isTemporary,
  type Change,
  type ReadingResource,
  type Step,
  type UnitResource,
} from '@zemble/contract';
import { partPutIn } from '../../circuit/changes/index.ts';
import type { Circuit, LayerValue, Part, UnitDocument } from '../../circuit/circuit/index.ts';
import type { Problem } from '../../base/errors/index.ts';
import { readChanges, readModel, readPart, readReadout } from '../formats/index.ts';
import { foundParams, foundValue } from '../../bench/judge/index.ts';

/** Readings of parts as they came that still count, oldest first, by the part. */
function readingsByPart(unit: Pick<UnitResource, 'readings'>): ReadonlyMap<string, ReadingResource[]> {
  const found = new Map<string, ReadingResource[]>();
  for (const r of unit.readings) {
    if (r.partId === null || r.changeId !== null || r.withdrawn) continue;
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

/** Readings of what changes put in that still count, oldest first, by the change and the designator. */
function readingsByChange(
  unit: Pick<UnitResource, 'parts' | 'readings'>,
): ReadonlyMap<string, ReadingResource[]> {
  const refs = new Map(unit.parts.map((p) => [p.id, p.part.ref]));
  const found = new Map<string, ReadingResource[]>();
  for (const r of unit.readings) {
    const ref = r.ref ?? (r.partId === null ? undefined : refs.get(r.partId));
    if (r.changeId === null || r.withdrawn || ref === undefined) continue;
    const key = putInKey(r.changeId, ref);
    found.set(key, [...(found.get(key) ?? []), r]);
  }
  return found;
}
const putInKey = (changeId: string, ref: string) => `${changeId} ${ref}`;

/** A part that is in the circuit now, as it is marked, and what was read of it since it is in. */
export interface PartInPlace {
  readonly part: Part;
  /** What a reading of it is of. */
  readonly of: { readonly partId?: string; readonly changeId?: string; readonly ref?: string };
  /** The version that a reading of it is based on. */
  readonly version: number;
  readonly readings: readonly ReadingResource[];
}

const asCame = new WeakMap<UnitResource['parts'][number], Part>();

/** A part as it is read from the record, once as long as it is the same. */
function partOf(resource: UnitResource['parts'][number]): Part {
  const known = asCame.get(resource);
  if (known) return known;
  const made = readPart(resource.part, resource.part.ref, []);
  asCame.set(resource, made);
  return made;
}

/**
 * The parts that are in the circuit now, in the order of the sheet and after them those that changes added: where another
 * one was fitted, that one, with its own readings; never those of the one before it.
 */
export function partsInPlace(
  unit: Pick<UnitResource, 'parts' | 'readings' | 'changes'>,
): readonly PartInPlace[] {
  const byPart = readingsByPart(unit);
  const done = unit.changes.filter((c) => c.change.state === 'done');
  if (done.length === 0)
    return unit.parts.map((resource) => ({
      part: partOf(resource),
      of: { partId: resource.id },
      version: resource.version,
      readings: byPart.get(resource.id) ?? [],
    }));
  const byChange = readingsByChange(unit);
  const places = new Map<string, PartInPlace>(
    unit.parts.map((resource) => [
      resource.part.ref,
      {
        part: partOf(resource),
        of: { partId: resource.id },
        version: resource.version,
        readings: byPart.get(resource.id) ?? [],
      },
    ]),
  );
  for (const { id, change } of done) {
    const [read] = readChanges(
      [change],
      [...places.values()].map((p) => p.part),
      [],
    );
    for (const step of read!.steps) {
      if (step.do === 'remove') places.delete(step.ref);
      const ref = step.do === 'fit' ? step.ref : step.do === 'add' ? step.part.ref : undefined;
      if (ref === undefined) continue;
      const before = places.get(ref);
      const part = partPutIn(read!, before?.part, ref);
      if (!part || (step.do === 'fit' && !before)) continue;
      const { partId } = before?.of ?? {};
      places.set(ref, {
        part,
        of: { ...(partId === undefined ? { ref } : { partId }), changeId: id },
        version: before?.version ?? 0,
        readings: byChange.get(putInKey(id, ref)) ?? [],
      });
    }
  }
  return [...places.values()];
}

/** The work that a part of the circuit now comes from: the last lasting change that is done and puts it in, by its row. */
function lastingWork(unit: UnitResource): ReadonlyMap<string, UnitResource['changes'][number]> {
  const found = new Map<string, UnitResource['changes'][number]>();
  for (const resource of unit.changes) {
    const { change } = resource;
    if (isTemporary(change) || change.state !== 'done') continue;
    for (const step of change.steps) if (step.do === 'fit') found.set(step.ref, resource);
  }
  return found;
}

/** A part as it was made, and what it was made from. */
interface MadePart {
  readonly from: UnitResource['parts'][number];
  readonly readings: readonly ReadingResource[];
  /** The change that put in what is there now, and what was read of that. */
  readonly work: UnitResource['changes'][number] | undefined;
  readonly proof: readonly ReadingResource[];
  readonly part: Part;
  /** What of it could not be read. */
  readonly problems: readonly Problem[];
}

/** A change as it was made, and what it was made from. */
interface MadeChange {
  readonly from: UnitResource['changes'][number];
  readonly readings: readonly ReadingResource[];
  readonly change: Change;
}

/**
 * Makes the documents of one unit as it changes: whatever an edit did not touch stays the same object, so that only what
 * depends on the edit is computed anew.
 */
export class DocumentMaker {
  private parts = new Map<string, MadePart>();
  private changes = new Map<string, MadeChange>();
  private readouts: UnitDocument['readouts'] = [];
  private unreadReadouts: Problem[] = [];
  private last: UnitDocument | null = null;
  private from: UnitResource | null = null;

  /** @param problems is given what of the unit cannot be read, each time */
  make(unit: UnitResource, problems: Problem[] = []): UnitDocument {
    const { last, from } = this;
    const isSame = (...fields: readonly (keyof UnitResource)[]) =>
      from !== null && fields.every((field) => from[field] === unit[field]);
    const circuit = this.circuitOf(unit, problems);
    if (!last || !isSame('readouts')) {
      this.unreadReadouts = [];
      this.readouts = readoutsOf(unit.readouts, this.unreadReadouts);
    }
    const { readouts } = this;
    problems.push(...this.unreadReadouts);
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
      isSame('path', 'evidence', 'intake', 'settings', 'wires', 'boards', 'panels') &&
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
      ...(unit.wires.length > 0 ? { wires: unit.wires } : {}),
      ...(unit.boards.length > 0 ? { boards: unit.boards } : {}),
      ...(unit.panels.length > 0 ? { panels: unit.panels } : {}),
    };
    return this.last;
  }

  private circuitOf(unit: UnitResource, problems: Problem[]): Circuit {
    const byPart = readingsByPart(unit);
    const byChange = readingsByChange(unit);
    const works = lastingWork(unit);
    const made = new Map(
      unit.parts.map((resource) => {
        const readings = byPart.get(resource.id) ?? [];
        const work = works.get(resource.part.ref);
        const proof = (work && byChange.get(putInKey(work.id, resource.part.ref))) ?? [];
        const known = this.parts.get(resource.id);
        const isKnown =
          known?.from === resource &&
          isEqual(known.readings, readings) &&
          known.work === work &&
          isEqual(known.proof, proof);
        return [resource.id, isKnown ? known : madePart(resource, readings, work, proof)] as const;
      }),
    );
    this.parts = made;
    for (const { problems: unread } of made.values()) problems.push(...unread);
    const parts = [...made.values()].map((m) => m.part);
    const known = this.last?.circuit;
    const changes = this.changesOf(unit, parts, byChange, problems);
    const isKnown =
      known?.ground === unit.ground &&
      this.from?.models === unit.models &&
      this.from.sets === unit.sets &&
      this.from.beeps === unit.beeps &&
      isEqual(known.parts, parts) &&
      isEqual(known.changes ?? [], changes);
    if (isKnown) return known;
    const models = unit.models.map((m) => readModel(m, `Model ${m.name}`, problems));
    return {
      ground: unit.ground,
      parts,
      ...(models.length > 0 ? { models } : {}),
      ...(changes.length > 0 ? { changes } : {}),
      ...(unit.sets.length > 0 ? { sets: unit.sets } : {}),
      ...(unit.beeps.length > 0 ? { beeps: unit.beeps } : {}),
    };
  }

  private changesOf(
    unit: UnitResource,
    parts: readonly Part[],
    byChange: ReadonlyMap<string, ReadingResource[]>,
    problems: Problem[],
  ): Change[] {
    const read = readChanges(
      unit.changes.map((c) => c.change),
      parts,
      problems,
    );
    const made = new Map(
      unit.changes.map((from, i) => {
        const readings = [...byChange].flatMap(([key, r]) => (key.startsWith(`${from.id} `) ? r : []));
        const known = this.changes.get(from.id);
        const isKnown = known?.from === from && isEqual(known.readings, readings);
        const change = isKnown ? known.change : withProof(read[i]!, from.id, byChange);
        return [from.id, { from, readings, change }] as const;
      }),
    );
    this.changes = made;
    return [...made.values()].map((m) => m.change);
  }
}

const isEqual = <T>(a: readonly T[], b: readonly T[]): boolean =>
  a.length === b.length && a.every((each, i) => each === b[i]);

function madePart(
  from: MadePart['from'],
  readings: readonly ReadingResource[],
  work: MadePart['work'],
  proof: readonly ReadingResource[],
): MadePart {
  const problems: Problem[] = [];
  const plain = readPart(from.part, from.part.ref, problems);
  const found: LayerValue = foundValue(plain, readings);
  const beside = foundParams(plain, readings);
  const part = {
    ...plain,
    ...(found === null ? {} : { found }),
    ...(Object.keys(beside).length > 0 ? { foundParams: beside } : {}),
    ...provenBy(plain, work, proof),
  };
  return { from, readings, work, proof, part, problems };
}

/** What was read of a part after the work that put it in. */
function provenBy(
  plain: Part,
  work: MadePart['work'],
  proof: readonly ReadingResource[],
): { readonly proven?: LayerValue } {
  if (!work || proof.length === 0) return {};
  const [change] = readChanges([work.change], [plain], []);
  const part = partPutIn(change!, plain, plain.ref);
  const proven = part ? foundValue(part, proof) : null;
  return proven === null ? {} : { proven };
}

/** A change whose new parts have what was read of them: what lasts is proven by it, what is temporary is found so. */
function withProof(
  change: Change,
  id: string,
  byChange: ReadonlyMap<string, readonly ReadingResource[]>,
): Change {
  const step = (each: Step): Step => {
    if (each.do !== 'add') return each;
    const value = foundValue(each.part, byChange.get(putInKey(id, each.part.ref)) ?? []);
    if (value === null) return each;
    return { ...each, part: { ...each.part, [isTemporary(change) ? 'found' : 'proven']: value } };
  };
  return { ...change, steps: change.steps.map(step) };
}

function readoutsOf(readouts: UnitResource['readouts'], problems: Problem[]): UnitDocument['readouts'] {
  const files = readouts.map((r) => r.readout);
  return files.map((r) => readReadout(r, `Readout "${r.name}"`, problems, files));
}
