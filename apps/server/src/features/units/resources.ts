import {
  UNIT_FIELDS,
  type BeepResource,
  type ChangeResource,
  type EvidenceResource,
  type FilePart,
  type LogEntry,
  type PartResource,
  type PhotoResource,
  type ReadingResource,
  type ReadoutResource,
  type RowOf,
  type RowValue,
  type UnitField,
  type UnitFields,
} from '@zemble/contract';
import type {
  BeepModel,
  ChangeModel,
  EvidenceModel,
  LogEntryModel,
  PartModel,
  PhotoModel,
  ReadingModel,
  ReadoutModel,
  RowModel,
  UnitModel,
} from '../../database/models/index.ts';

/** A part's row as the part of a unit file. */
export function partFromRow(row: PartModel): FilePart {
  const values = { marked: row.marked, proven: row.proven };
  const present = Object.fromEntries(Object.entries(values).filter(([, v]) => v !== null && v !== undefined));
  const part: Pick<FilePart, 'ref' | 'kind' | 'pins'> = { ref: row.ref, kind: row.kind, pins: row.pins };
  return { ...part, ...present, ...row.extra } as FilePart;
}

export const partResource = (p: PartModel): PartResource => ({
  id: p.id,
  version: p.version,
  position: p.position,
  part: partFromRow(p),
});

export const readoutResource = (r: ReadoutModel): ReadoutResource => ({
  id: r.id,
  version: r.version,
  position: r.position,
  readout: r.definition,
});

export const changeResource = (c: ChangeModel): ChangeResource => ({
  id: c.id,
  version: c.version,
  position: c.position,
  change: c.definition,
});

export const readingResource = (r: ReadingModel): ReadingResource => ({
  id: r.id,
  partId: r.partId,
  readoutId: r.readoutId,
  changeId: r.changeId ?? null,
  ref: r.ref ?? null,
  value: r.value,
  condition: r.condition,
  instrument: r.instrument,
  esr: r.esr ?? null,
  aspect: r.aspect ?? null,
  red: r.red ?? null,
  isAsDrawn: r.isAsDrawn,
  between: r.between ?? null,
  takenAt: r.takenAt.toISOString(),
  withdrawn: r.withdrawnAt !== null,
});

export const evidenceResource = (e: EvidenceModel): EvidenceResource => ({
  ...e.definition,
  id: e.id,
  takenAt: e.takenAt.toISOString(),
  withdrawn: e.withdrawnAt !== null,
});

export const beepResource = (b: BeepModel): BeepResource => ({
  ...b.definition,
  id: b.id,
  takenAt: b.takenAt.toISOString(),
  withdrawn: b.withdrawnAt !== null,
});

export const photoResource = ({
  id,
  version,
  name,
  width,
  height,
  points,
  overlay,
}: PhotoModel): PhotoResource => ({
  id,
  version,
  name,
  width,
  height,
  points,
  overlay,
});

export const logResource = (l: LogEntryModel): LogEntry => ({
  id: l.id,
  sequence: l.sequence,
  at: l.at.toISOString(),
  kind: l.kind,
  summary: l.summary,
  undone: l.undoneAt !== null,
  undoable: l.undoneAt === null && l.inverse.length > 0,
  by: l.by ?? null,
});

/** What a unit's row says of the unit itself. */
export const unitFields = (unit: UnitModel, lastActivity: string | null): UnitFields => ({
  ...(Object.fromEntries(UNIT_FIELDS.map((name) => [name, unit[name]])) as Pick<UnitFields, UnitField>),
  ticks: unit.ticks,
  stage: unit.stage,
  lastActivityAt: unit.lastActivityAt.toISOString(),
  lastActivity,
  versions: unit.versions,
});

type Resources = { readonly [Of in RowOf]: (row: RowModel<Of>) => RowValue<Of> };
const RESOURCES: Resources = {
  part: partResource,
  readout: readoutResource,
  change: changeResource,
  reading: readingResource,
  evidence: evidenceResource,
  beep: beepResource,
  photo: photoResource,
  log: logResource,
};

/** A row of any kind as it travels. */
export const rowResource = <Of extends RowOf>(of: Of, row: RowModel<Of>): RowValue<Of> => RESOURCES[of](row);
