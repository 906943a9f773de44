import type {
  AcceptPlan,
  AmendReading,
  CreateEvidence,
  PhotoResource,
  Between,
  ReadingCondition,
  SheetPart,
  FileReadout,
  UnitResource,
  UpdateUnit,
} from '@halfsplit/contract';

/** A change of a unit, as data: it can be kept while the server is away, and shown before the server has it. */
export type Change =
  | {
      readonly type: 'add-part';
      readonly tempId: string;
      readonly part: SheetPart;
      readonly position?: number;
    }
  | { readonly type: 'update-part'; readonly partId: string; readonly seen: number; readonly part: SheetPart }
  | { readonly type: 'remove-part'; readonly partId: string; readonly seen: number }
  | {
      readonly type: 'add-reading';
      readonly tempId: string;
      readonly partId?: string;
      readonly readoutId?: string;
      readonly seen: number;
      readonly value: number | 'open' | 'short';
      readonly condition: ReadingCondition;
      readonly instrument?: string;
      readonly esr?: number;
      readonly aspect?: string;
      readonly red?: string;
      readonly isAsDrawn?: boolean;
      readonly between?: Between;
      readonly takenAt: string;
    }
  | { readonly type: 'amend-reading'; readonly readingId: string; readonly told: AmendReading }
  | { readonly type: 'add-readout'; readonly tempId: string; readonly readout: FileReadout }
  | {
      readonly type: 'update-readout';
      readonly readoutId: string;
      readonly seen: number;
      readonly readout: FileReadout;
    }
  | { readonly type: 'remove-readout'; readonly readoutId: string; readonly seen: number }
  | { readonly type: 'accept-plan'; readonly changes: AcceptPlan['changes']; readonly reason: string }
  | {
      readonly type: 'add-evidence';
      readonly tempId: string;
      readonly evidence: CreateEvidence;
      readonly takenAt: string;
    }
  | { readonly type: 'withdraw-evidence'; readonly evidenceId: string }
  | {
      readonly type: 'update-photo';
      readonly photoId: string;
      readonly seen: number;
      readonly values: {
        readonly name?: string;
        readonly points?: PhotoResource['points'];
        readonly turn?: number;
      };
    }
  | { readonly type: 'remove-photo'; readonly photoId: string; readonly seen: number }
  | { readonly type: 'add-note'; readonly text: string }
  | { readonly type: 'update-unit'; readonly seen: number; readonly values: Omit<UpdateUnit, 'baseVersion'> }
  | { readonly type: 'undo'; readonly sequence: number };

export interface Write {
  readonly key: string;
  readonly unitId: string;
  readonly change: Change;
}

/** The unit as it will be when the server has the change. */
export function applyChange(unit: UnitResource, change: Change): UnitResource {
  switch (change.type) {
    case 'add-part':
      return {
        ...unit,
        parts: [
          ...unit.parts,
          {
            id: change.tempId,
            version: 0,
            position: change.position ?? unit.parts.length,
            part: change.part,
          },
        ],
      };
    case 'update-part':
      return {
        ...unit,
        parts: unit.parts.map((p) => (p.id === change.partId ? { ...p, part: change.part } : p)),
      };
    case 'remove-part':
      return { ...unit, parts: unit.parts.filter((p) => p.id !== change.partId) };
    case 'add-reading':
      return {
        ...unit,
        readings: [
          ...unit.readings,
          {
            id: change.tempId,
            partId: change.partId ?? null,
            readoutId: change.readoutId ?? null,
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
      return {
        ...unit,
        readouts: [
          ...unit.readouts,
          { id: change.tempId, version: 0, position: unit.readouts.length, readout: change.readout },
        ],
      };
    case 'update-readout':
      return {
        ...unit,
        readouts: unit.readouts.map((r) =>
          r.id === change.readoutId ? { ...r, readout: change.readout } : r,
        ),
      };
    case 'remove-readout':
      return { ...unit, readouts: unit.readouts.filter((r) => r.id !== change.readoutId) };
    case 'accept-plan': {
      const planned = new Map(change.changes.map((c) => [c.partId, c.planned]));
      return {
        ...unit,
        parts: unit.parts.map((p) =>
          planned.has(p.id) ? { ...p, part: { ...p.part, planned: planned.get(p.id) ?? null } } : p,
        ),
      };
    }
    case 'update-unit':
      return { ...unit, ...change.values };
    case 'add-evidence': {
      const { evidence, tempId, takenAt } = change;
      return {
        ...unit,
        evidence: [...unit.evidence, { ...evidence, id: tempId, takenAt, withdrawn: false }],
      };
    }
    case 'withdraw-evidence':
      return {
        ...unit,
        evidence: unit.evidence.map((e) => (e.id === change.evidenceId ? { ...e, withdrawn: true } : e)),
      };
    case 'update-photo': {
      // A turn is shown when the server has made it.
      const { name, points } = change.values;
      const values = { ...(name === undefined ? {} : { name }), ...(points === undefined ? {} : { points }) };
      return { ...unit, photos: unit.photos.map((p) => (p.id === change.photoId ? { ...p, ...values } : p)) };
    }
    case 'remove-photo':
      return { ...unit, photos: unit.photos.filter((p) => p.id !== change.photoId) };
    case 'add-note':
    case 'undo':
      return unit;
  }
}

export interface Request {
  readonly method: string;
  readonly path: string;
  readonly body: unknown;
}

/** The request that carries a change. `versionOf` gives the newest version this browser itself made of a thing. */
export function requestFor(
  { unitId, change }: Write,
  versionOf: (id: string, seen: number) => number,
): Request {
  const root = `/units/${unitId}`;
  const post = (path: string, body: unknown): Request => ({ method: 'POST', path: `${root}${path}`, body });
  switch (change.type) {
    case 'add-part': {
      const { part, position } = change;
      return post('/parts', { baseVersion: 0, part, ...(position === undefined ? {} : { position }) });
    }
    case 'update-part': {
      const body = { baseVersion: versionOf(change.partId, change.seen), part: change.part };
      return { method: 'PUT', path: `${root}/parts/${change.partId}`, body };
    }
    case 'remove-part':
      return post(`/parts/${change.partId}/remove`, { baseVersion: versionOf(change.partId, change.seen) });
    case 'add-reading': {
      const { type: _t, tempId: id, takenAt: _at, partId, readoutId, seen, ...reading } = change;
      const subject = partId === undefined ? { readoutId } : { partId };
      return post('/readings', {
        ...subject,
        baseVersion: versionOf(partId ?? '', seen),
        id,
        ...reading,
      });
    }
    case 'amend-reading':
      return { method: 'PATCH', path: `${root}/readings/${change.readingId}`, body: change.told };
    case 'add-readout':
      return post('/readouts', { baseVersion: 0, readout: change.readout });
    case 'update-readout': {
      const body = { baseVersion: versionOf(change.readoutId, change.seen), readout: change.readout };
      return { method: 'PUT', path: `${root}/readouts/${change.readoutId}`, body };
    }
    case 'remove-readout':
      return post(`/readouts/${change.readoutId}/remove`, {
        baseVersion: versionOf(change.readoutId, change.seen),
      });
    case 'accept-plan': {
      const changes = change.changes.map((c) => ({ ...c, baseVersion: versionOf(c.partId, c.baseVersion) }));
      return post('/plan', { changes, reason: change.reason });
    }
    case 'add-evidence':
      return post('/evidence', change.evidence);
    case 'withdraw-evidence':
      return post(`/evidence/${change.evidenceId}/withdraw`, {});
    case 'update-photo':
      return {
        method: 'PATCH',
        path: `${root}/photos/${change.photoId}`,
        body: { baseVersion: versionOf(change.photoId, change.seen), ...change.values },
      };
    case 'remove-photo':
      return post(`/photos/${change.photoId}/remove`, {
        baseVersion: versionOf(change.photoId, change.seen),
      });
    case 'add-note':
      return post('/notes', { text: change.text });
    case 'update-unit':
      return {
        method: 'PATCH',
        path: root,
        body: { baseVersion: versionOf(unitId, change.seen), ...change.values },
      };
    case 'undo':
      return post('/undo', { baseVersion: change.sequence });
  }
}

/** The same change on top of a newer version: what "use mine" sends after a conflict. */
export function rebased(change: Change, version: number): Change {
  if (change.type === 'accept-plan')
    return { ...change, changes: change.changes.map((c) => ({ ...c, baseVersion: version })) };
  return 'seen' in change ? { ...change, seen: version } : change;
}
