import { UNIT_FIELDS, type PartResource, type SheetPart, type UnitResource } from '@zemble/contract';
import { readPart, renamedEnds, restated, withClaimedNames, withTracedNets } from '@zemble/core';
import type { Change, Write } from './change.ts';

/** The unit as it will be when the server has the change. */
export function applyChange(unit: UnitResource, change: Change): UnitResource {
  switch (change.type) {
    case 'add-part':
      if (isThere(unit.parts, change.id)) return unit;
      return withAddedPart(unit, change);
    case 'update-part':
      return withEnteredPart(unit, change);
    case 'remove-part':
      return withTracedNets({ ...unit, parts: unit.parts.filter((p) => p.id !== change.partId) });
    case 'add-reading':
      if (isThere(unit.readings, change.id)) return unit;
      return {
        ...unit,
        readings: [
          ...unit.readings,
          {
            id: change.id,
            partId: change.partId ?? null,
            readoutId: change.readoutId ?? null,
            changeId: change.changeId ?? null,
            ref: change.ref ?? null,
            value: change.value,
            condition: change.condition,
            instrument: change.instrument ?? null,
            esr: change.esr ?? null,
            aspect: change.aspect ?? null,
            red: change.red ?? null,
            isAsDrawn: change.isAsDrawn ?? false,
            between: change.between ?? null,
            takenAt: change.takenAt,
            withdrawn: false,
          },
        ],
      };
    case 'amend-reading':
      return {
        ...unit,
        readings: unit.readings.map((r) => (r.id === change.readingId ? { ...r, ...change.told } : r)),
      };
    case 'add-readout':
      if (isThere(unit.readouts, change.id)) return unit;
      return {
        ...unit,
        readouts: [
          ...unit.readouts,
          { id: change.id, version: 0, position: unit.readouts.length, readout: change.readout },
        ],
      };
    case 'update-readout':
      return {
        ...unit,
        readouts: unit.readouts.map((r) =>
          r.id === change.readoutId ? { ...r, version: change.seen + 1, readout: change.readout } : r,
        ),
      };
    case 'remove-readout':
      return { ...unit, readouts: unit.readouts.filter((r) => r.id !== change.readoutId) };
    case 'add-change': {
      if (isThere(unit.changes, change.id)) return unit;
      const position = (unit.changes.at(-1)?.position ?? -1) + 1;
      return {
        ...unit,
        changes: [...unit.changes, { id: change.id, version: 0, position, change: change.change }],
      };
    }
    case 'update-change':
      return {
        ...unit,
        changes: unit.changes.map((c) =>
          c.id === change.changeId ? { ...c, version: change.seen + 1, change: change.change } : c,
        ),
      };
    case 'update-unit': {
      const versions = Object.fromEntries(
        UNIT_FIELDS.flatMap((field) =>
          change.seen[field] === undefined ? [] : [[field, change.seen[field] + 1] as const],
        ),
      );
      const values = Object.fromEntries(Object.entries(change.values).filter(([, v]) => v !== undefined));
      return { ...unit, ...values, versions: { ...unit.versions, ...versions } };
    }
    case 'add-evidence': {
      const { evidence, id, takenAt } = change;
      if (isThere(unit.evidence, id)) return unit;
      return {
        ...unit,
        evidence: [...unit.evidence, { ...evidence, id, takenAt, withdrawn: false }],
      };
    }
    case 'withdraw-evidence':
      return {
        ...unit,
        evidence: unit.evidence.map((e) => (e.id === change.evidenceId ? { ...e, withdrawn: true } : e)),
      };
    case 'add-beep': {
      const { beep, id, takenAt } = change;
      if (isThere(unit.beeps, id)) return unit;
      return withTracedNets({ ...unit, beeps: [...unit.beeps, { ...beep, id, takenAt, withdrawn: false }] });
    }
    case 'withdraw-beep':
      return withTracedNets({
        ...unit,
        beeps: unit.beeps.map((b) => (b.id === change.beepId ? { ...b, withdrawn: true } : b)),
      });
    case 'beep-through':
      return withTracedNets({
        ...unit,
        beeps: unit.beeps.map((b) => (b.id === change.beepId ? { ...b, through: change.through } : b)),
      });
    case 'tick-step': {
      const { [change.id]: _gone, ...others } = unit.ticks;
      return { ...unit, ticks: change.isDone ? { ...unit.ticks, [change.id]: { at: change.at } } : others };
    }
    case 'update-photo': {
      // A turn is shown when the server has made it.
      const { name, points, overlay } = change.values;
      const values = { ...(name === undefined ? {} : { name }), ...(points === undefined ? {} : { points }) };
      const version = change.seen + 1;
      return {
        ...unit,
        photos: unit.photos.map((p) =>
          p.id === change.photoId ? { ...p, ...values, overlay: { ...p.overlay, ...overlay }, version } : p,
        ),
      };
    }
    case 'remove-photo':
      return { ...unit, photos: unit.photos.filter((p) => p.id !== change.photoId) };
    case 'create-unit':
    case 'add-note':
    case 'undo':
      return unit;
  }
}

/** Numbers are given by the server: a unit that it has not seen yet has none. */
export const NO_NUMBER = 0;

/** A unit as it was made here, for as long as the server has not seen it. */
export function newUnit({ unitId, change }: Write): UnitResource | undefined {
  if (change.type !== 'create-unit') return undefined;
  return {
    id: unitId,
    number: NO_NUMBER,
    sequence: 0,
    ...change.values,
    stage: 'trace',
    place: 'bench',
    lastActivityAt: change.at,
    lastActivity: null,
    settings: [],
    sets: [],
    wires: [],
    boards: [],
    panels: [],
    ticks: {},
    ground: '0',
    nudges: {},
    models: [],
    path: null,
    intake: {},
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

const isThere = (list: readonly { readonly id: string }[], id: string): boolean =>
  list.some((each) => each.id === id);

/** A unit with a new part, on the nets that it says. */
function withAddedPart(unit: UnitResource, change: Extract<Change, { type: 'add-part' }>): UnitResource {
  const claimed = withClaimedNames(unit, readPart(change.part, change.part.ref, []), change.id);
  return withTracedNets({ ...claimed, parts: withNewPart(claimed.parts, change) });
}

/** A unit with a part entered anew, and the beeps of its designator. */
function withEnteredPart(unit: UnitResource, change: Extract<Change, { type: 'update-part' }>): UnitResource {
  const known = unit.parts.find((p) => p.id === change.partId);
  if (!known) return unit;
  const before = readPart(known.part, known.part.ref, []);
  const part = restated(before, readPart(change.part, change.part.ref, [])) as SheetPart;
  const beeps =
    part.ref === before.ref
      ? unit.beeps
      : unit.beeps.map((b) => ({ ...b, ends: renamedEnds(b.ends, before.ref, part.ref) }));
  const claimed = withClaimedNames({ ...unit, beeps }, readPart(part, part.ref, []), change.partId);
  return withTracedNets({
    ...claimed,
    parts: claimed.parts.map((p) => (p === known ? { ...p, version: change.seen + 1, part } : p)),
  });
}

/** Parts with a new one at its position, those from there on moved down. */
function withNewPart(
  parts: readonly PartResource[],
  { id, part, position }: Extract<Change, { type: 'add-part' }>,
): PartResource[] {
  const last = parts.at(-1)?.position ?? -1;
  const at = position ?? last + 1;
  const made = { id, version: 0, position: at, part };
  const moved = parts.map((p) => (p.position >= at ? { ...p, position: p.position + 1 } : p));
  return [...moved, made].sort((a, b) => a.position - b.position);
}

export interface Request {
  readonly method: string;
  readonly path: string;
  readonly body: unknown;
}

/** The request that carries a change. */
export function requestFor({ unitId, change }: Write): Request {
  const root = `/units/${unitId}`;
  const post = (path: string, body: unknown): Request => ({ method: 'POST', path: `${root}${path}`, body });
  switch (change.type) {
    case 'create-unit':
      return { method: 'POST', path: '/units', body: { id: unitId, ...change.values } };
    case 'add-part': {
      const { id, part, position } = change;
      return post('/parts', { id, part, ...(position === undefined ? {} : { position }) });
    }
    case 'update-part':
      return {
        method: 'PUT',
        path: `${root}/parts/${change.partId}`,
        body: { baseVersion: change.seen, part: change.part },
      };
    case 'remove-part':
      return post(`/parts/${change.partId}/remove`, { baseVersion: change.seen });
    case 'add-reading': {
      const { type: _type, seen, ...reading } = change;
      return post('/readings', { baseVersion: seen, ...reading });
    }
    case 'amend-reading':
      return { method: 'PATCH', path: `${root}/readings/${change.readingId}`, body: change.told };
    case 'add-readout':
      return post('/readouts', { id: change.id, readout: change.readout });
    case 'update-readout':
      return {
        method: 'PUT',
        path: `${root}/readouts/${change.readoutId}`,
        body: { baseVersion: change.seen, readout: change.readout },
      };
    case 'remove-readout':
      return post(`/readouts/${change.readoutId}/remove`, { baseVersion: change.seen });
    case 'add-change':
      return post('/changes', { id: change.id, change: change.change });
    case 'update-change':
      return {
        method: 'PUT',
        path: `${root}/changes/${change.changeId}`,
        body: { baseVersion: change.seen, change: change.change },
      };
    case 'add-evidence':
      return post('/evidence', { ...change.evidence, id: change.id, takenAt: change.takenAt });
    case 'withdraw-evidence':
      return post(`/evidence/${change.evidenceId}/withdraw`, {});
    case 'add-beep':
      return post('/beeps', { ...change.beep, id: change.id, takenAt: change.takenAt });
    case 'withdraw-beep':
      return post(`/beeps/${change.beepId}/withdraw`, {});
    case 'beep-through':
      return post(`/beeps/${change.beepId}/through`, { through: change.through });
    case 'tick-step': {
      const { type: _type, ...body } = change;
      return { method: 'PUT', path: `${root}/ticks`, body };
    }
    case 'update-photo':
      return {
        method: 'PATCH',
        path: `${root}/photos/${change.photoId}`,
        body: { baseVersion: change.seen, ...change.values },
      };
    case 'remove-photo':
      return post(`/photos/${change.photoId}/remove`, { baseVersion: change.seen });
    case 'add-note':
      return post('/notes', { id: change.id, text: change.text });
    case 'update-unit':
      return { method: 'PATCH', path: root, body: { seen: change.seen, ...change.values } };
    case 'undo':
      return post('/undo', { sequence: change.sequence });
  }
}

/** What the server says that a thing is now, where a change came too late. */
interface Current {
  readonly id?: string;
  readonly version?: number;
  readonly versions?: Partial<Record<string, number>>;
}

/** The same change on top of what is there now: what "use mine" sends after a conflict. */
export function rebased(change: Change, current: Current): Change {
  const { version } = current;
  switch (change.type) {
    case 'update-unit':
      return { ...change, seen: { ...change.seen, ...current.versions } };
    default:
      return 'seen' in change && version !== undefined ? { ...change, seen: version } : change;
  }
}
