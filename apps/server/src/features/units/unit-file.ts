import { randomUUID } from 'node:crypto';
import type { BeepData, EvidenceData, FileReading, UnitResource } from '@zemble/contract';
import {
  readingsOfFound,
  readUnitFile,
  writeUnitFile,
  documentFromResource,
  type Part,
  type UnitDocument,
} from '@zemble/core';
import type { Sequelize, Transaction } from 'sequelize';
import type { UnitExtra, UnitModel } from '../../database/models/index.ts';
import { inSnapshot } from '../../database/snapshot.ts';
import { invalid } from '../../errors.ts';
import { insertBeeps } from '../beeps/repository.ts';
import { insertChanges } from '../changes/repository.ts';
import { insertAllEvidence } from '../evidence/repository.ts';
import { appendLog, appendSteps } from '../log/repository.ts';
import { insertParts } from '../parts/repository.ts';
import { filePhotos, insertPhotos } from '../photos/file-photos.ts';
import { relaid } from '../photos/laid-photos.ts';
import { readPicture, type Picture } from '../photos/picture.ts';
import { insertReadings } from '../readings/repository.ts';
import { insertReadouts } from '../readouts/repository.ts';
import { insertUnit, findUnit, loadUnit } from './repository.ts';
import { blankUnit } from './service.ts';

/** A document with its pictures read, ready to be put on the bench. */
export interface ReadyDocument {
  readonly document: UnitDocument;
  readonly pictures: readonly Picture[];
}

/** Reads the text of a unit file, and its pictures. Throws 422 with every problem found. */
export async function readyFile(text: string): Promise<ReadyDocument> {
  const read = readUnitFile(text);
  if (!read.ok) {
    const [first] = read.problems;
    throw invalid(
      first!.message,
      first!.hint,
      read.problems.map((p) => ({ message: p.message })),
    );
  }
  const pictures: Picture[] = [];
  for (const { jpeg } of read.document.photos ?? [])
    pictures.push(await readPicture(Buffer.from(jpeg, 'base64')));
  return { document: read.document, pictures };
}

/** Puts a unit on the bench as a document says it. */
export async function insertDocument(
  { document, pictures }: ReadyDocument,
  transaction: Transaction,
  { id = randomUUID(), isDemo = false }: { readonly id?: string | undefined; readonly isDemo?: boolean } = {},
): Promise<UnitModel> {
  const {
    unit: described,
    circuit,
    readouts,
    log,
    readings,
    drawing,
    path,
    intake,
    evidence,
    photos,
    settings,
    wires,
    boards,
    panels,
    bench,
    ...file
  } = document;
  const { name, kind, hazards, hazardNotes, notes, ...unitExtra } = described;
  const { ground, parts, models, changes = [], sets = [], beeps = [], ...circuitExtra } = circuit;
  // Photos are named by their places in a file, from 0.
  const photoIds = (photos ?? []).map(() => randomUUID());
  const laid = relaid(
    { boards: boards ?? [], panels: panels ?? [], intake: intake ?? {} },
    (place) => photoIds[Number(place)],
  );
  const unit = await insertUnit(
    {
      ...blankUnit(),
      id,
      isDemo,
      name: name?.trim() || 'Unnamed unit',
      kind: kind ?? '',
      hazards: [...(hazards ?? [])],
      hazardNotes: hazardNotes ?? '',
      settings: (settings ?? []).map((s) => ({ ...s, controls: { ...s.controls } })),
      sets: sets.map((s) => ({ ...s })),
      wires: [...(wires ?? [])],
      ...laid,
      ticks: { ...bench?.ticks },
      notes: notes ?? '',
      ground,
      nudges: drawing?.nudges ?? {},
      models: [...(models ?? [])],
      path: path ?? null,
      extra: { file, unit: unitExtra, circuit: circuitExtra },
    },
    transaction,
  );
  const rows = await insertParts(unit.id, parts, transaction);
  const ids = new Map(rows.map((row) => [row.ref, row.id]));
  const readoutRows = await insertReadouts(unit.id, readouts, transaction);
  const readoutIds = new Map(readoutRows.map((row) => [row.definition.id, row.id]));
  const changeRows = await insertChanges(unit.id, changes, transaction);
  const named: NamedIds = {
    parts: ids,
    readouts: readoutIds,
    changes: new Map(changeRows.map((row) => [row.definition.id, row.id])),
    added: new Set(changes.flatMap((c) => c.steps.flatMap((s) => (s.do === 'add' ? [s.part.ref] : [])))),
  };
  await insertReadings(readingRows(unit.id, named, fileReadings(readings, parts)), transaction);
  await insertAllEvidence(evidenceRows(unit.id, evidence ?? []), transaction);
  await insertBeeps(beepRows(unit.id, beeps), transaction);
  await insertLog(unit, log, transaction);
  await insertPhotos(unit, photos ?? [], pictures, photoIds, transaction);
  await appendLog(
    unit,
    { kind: 'unit', summary: `Put on the bench from a file with ${parts.length} parts.` },
    transaction,
  );
  return unit;
}

/** A clock elsewhere may be ahead by this, ms. */
const AHEAD_MS = 24 * 3600 * 1000;

/** The history of readings when the file has one, otherwise what it says was found, as readings of now. */
function fileReadings(readings: UnitDocument['readings'], parts: readonly Part[]): readonly FileReading[] {
  if (readings) return readings;
  const takenAt = new Date().toISOString();
  return parts.flatMap((part) =>
    readingsOfFound(part).map(({ value, aspect }) => ({
      ref: part.ref,
      value,
      condition: 'leg lifted' as const,
      ...(aspect ? { aspect } : {}),
      takenAt,
    })),
  );
}

/** What a file names its readings by: designators and ids, and the rows they became. */
interface NamedIds {
  readonly parts: ReadonlyMap<string, string>;
  readonly readouts: ReadonlyMap<string, string>;
  readonly changes: ReadonlyMap<string, string>;
  /** Designators of parts that changes add. */
  readonly added: ReadonlySet<string>;
}

/** Readings as a file has them; one of a part, readout or change that the file does not have is refused. */
function readingRows(unitId: string, named: NamedIds, readings: readonly FileReading[]) {
  return readings.map((r, i) => {
    const changeId = r.change === undefined ? null : named.changes.get(r.change);
    const isAdded = r.ref !== undefined && !named.parts.has(r.ref) && named.added.has(r.ref) && changeId;
    const partId = r.ref === undefined || isAdded ? null : named.parts.get(r.ref);
    const readoutId = r.readout === undefined ? null : named.readouts.get(r.readout);
    if (changeId === undefined)
      throw invalid(
        `The file is no valid unit file: readings[${i}] is of the change "${r.change}", which it does not have.`,
        'Correct the name, or leave the reading out.',
      );
    if (partId === undefined || readoutId === undefined)
      throw invalid(
        `The file is no valid unit file: readings[${i}] is of "${r.ref ?? r.readout}", which it does not have.`,
        'Correct the name, or leave the reading out.',
      );
    const takenAt = new Date(r.takenAt);
    return {
      id: randomUUID(),
      unitId,
      partId,
      readoutId,
      changeId,
      ref: isAdded ? r.ref! : null,
      value: r.value,
      condition: r.condition,
      instrument: r.instrument ?? null,
      esr: r.esr ?? null,
      aspect: r.aspect ?? null,
      red: r.red ?? null,
      isAsDrawn: r.isAsDrawn ?? false,
      between: r.between ?? null,
      takenAt,
      withdrawnAt: r.withdrawn === true ? takenAt : null,
    };
  });
}

/** When something of a file was seen. Without times the order of the file is the order in which it was seen. */
function seenAt(
  { takenAt: written, withdrawn }: { readonly takenAt?: unknown; readonly withdrawn?: boolean | undefined },
  place: number,
): { readonly takenAt: Date; readonly withdrawnAt: Date | null } {
  const now = Date.now();
  const said = new Date(String(written));
  const isTime = said.getTime() >= 0 && said.getTime() <= now + AHEAD_MS;
  const takenAt = isTime ? said : new Date(now + place);
  return { takenAt, withdrawnAt: withdrawn === true ? takenAt : null };
}

/** Tests as a file has them. */
const evidenceRows = (unitId: string, evidence: readonly EvidenceData[]) =>
  evidence.map((each, i) => {
    const { withdrawn: _withdrawn, ...definition } = each;
    return { id: randomUUID(), unitId, definition, ...seenAt(each, i) };
  });

/** Beeps as a file has them. */
const beepRows = (unitId: string, beeps: readonly BeepData[]) =>
  beeps.map((each, i) => {
    const { withdrawn: _withdrawn, ...definition } = each;
    return { id: randomUUID(), unitId, definition, ...seenAt(each, i) };
  });

async function insertLog(unit: UnitModel, log: UnitDocument['log'], transaction: Transaction): Promise<void> {
  await appendSteps(
    unit,
    (log ?? []).map(({ at, kind, summary, by = null }) => ({ kind, summary, at: new Date(at), by })),
    transaction,
  );
}

/**
 * A document with what of the record could not be read as it was written: a field that this version does not understand is in the
 * file too, for one that does.
 */
const asWritten = (document: UnitDocument, { parts, readouts }: UnitResource): UnitDocument => ({
  ...document,
  circuit: {
    ...document.circuit,
    parts: document.circuit.parts.map((part, i) => ({ ...(parts[i]!.part as object), ...part })),
  },
  readouts: document.readouts.map((readout, i) => ({ ...(readouts[i]!.readout as object), ...readout })),
});

/** The unit as unit file text, at one moment: nothing that was imported or entered is lost on the way. */
export async function exportUnit(
  database: Sequelize,
  id: string,
): Promise<{ text: string; name: string } | null> {
  return inSnapshot(database, (transaction) => exportIn(id, transaction));
}

async function exportIn(
  id: string,
  transaction: Transaction,
): Promise<{ text: string; name: string } | null> {
  const row = await findUnit(id, transaction);
  const resource = await loadUnit(id, transaction, { wholeLog: true });
  if (!row || !resource) return null;
  const document = asWritten(documentFromResource(resource), resource);
  const extra = row.extra as UnitExtra;
  const refs = new Map(resource.parts.map((p) => [p.id, p.part.ref]));
  const readoutIds = new Map(resource.readouts.map((r) => [r.id, r.readout.id]));
  const changeIds = new Map(resource.changes.map((c) => [c.id, c.change.id]));
  const { places, pictures } = await filePhotos(id, transaction);
  const { boards, panels, intake } = relaid(resource, (photoId) => places.get(photoId));
  const full: UnitDocument = {
    ...extra.file,
    ...document,
    ...(boards.length > 0 ? { boards } : {}),
    ...(panels.length > 0 ? { panels } : {}),
    unit: { ...extra.unit, ...document.unit },
    circuit: {
      ...extra.circuit,
      ...document.circuit,
      ...(resource.beeps.length > 0
        ? {
            beeps: resource.beeps.map(({ id: _id, withdrawn, ...heard }) => ({
              ...heard,
              ...(withdrawn ? { withdrawn } : {}),
            })),
          }
        : {}),
    },
    readings: resource.readings.flatMap((r): FileReading[] => {
      const ref = r.partId === null ? (r.ref ?? undefined) : refs.get(r.partId);
      const change = r.changeId === null ? undefined : changeIds.get(r.changeId);
      // What was put in by a change that was taken back from the record is not in the file either.
      if (r.changeId !== null && change === undefined) return [];
      const readout = r.readoutId === null ? undefined : readoutIds.get(r.readoutId);
      if (ref === undefined && readout === undefined) return [];
      const { value, condition, instrument, esr, aspect, red, isAsDrawn, between, takenAt, withdrawn } = r;
      return [
        {
          ...(ref ? { ref } : { readout: readout! }),
          ...(change === undefined ? {} : { change }),
          value,
          condition,
          instrument,
          ...(esr === null ? {} : { esr }),
          ...(aspect === null ? {} : { aspect }),
          ...(red === null ? {} : { red }),
          ...(isAsDrawn ? { isAsDrawn } : {}),
          ...(between === null ? {} : { between }),
          takenAt,
          withdrawn,
        },
      ];
    }),
    intake: Object.keys(intake).length > 0 ? intake : undefined,
    evidence:
      resource.evidence.length > 0
        ? resource.evidence.map(({ id: _id, withdrawn, ...seen }) => ({
            ...seen,
            ...(withdrawn ? { withdrawn } : {}),
          }))
        : undefined,
    ...(Object.keys(resource.ticks).length > 0 ? { bench: { ticks: resource.ticks } } : {}),
    ...pictures,
    drawing: { nudges: resource.nudges },
    log: [...resource.log].reverse().map(({ at, kind, summary, undone, by }) => ({
      at,
      kind,
      summary,
      ...(undone ? { undone } : {}),
      ...(by === null ? {} : { by }),
    })),
  };
  return { text: writeUnitFile(full), name: row.name };
}
