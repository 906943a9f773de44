import type { FilePart, Stage, UnitResource, UnitSummary } from '@halfsplit/contract';
import { photosOf } from '../photos/repository.ts';
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import {
  EvidenceModel,
  LogEntryModel,
  PartModel,
  ReadingModel,
  ReadoutModel,
  UnitModel,
} from '../../database/models/index.ts';

type NewUnit = Omit<UnitModel['_creationAttributes'], 'number'>;

/** Entries of the log that a unit is sent with: the newest ones. */
const LOG_LENGTH = 500;

export async function insertUnit(values: NewUnit, transaction: Transaction): Promise<UnitModel> {
  return UnitModel.create(values, { transaction });
}

/** The unit's row, locked until the transaction ends, so that two writes to a unit follow one another. */
export async function lockUnit(id: string, transaction: Transaction): Promise<UnitModel | null> {
  return UnitModel.findByPk(id, { transaction, lock: transaction.LOCK.UPDATE });
}

export async function findUnit(id: string): Promise<UnitModel | null> {
  return UnitModel.findByPk(id);
}

export async function listUnits(database: Sequelize): Promise<UnitSummary[]> {
  const rows = await database.query<SummaryRow>(
    `SELECT u.id, u.version, u.number, u.name, u.kind, u.hazards, u.stage, u.last_activity_at,
       (SELECT count(*)::int FROM parts p WHERE p.unit_id = u.id AND p.removed_at IS NULL) AS part_count,
       (SELECT count(DISTINCT r.part_id)::int FROM readings r JOIN parts p ON p.id = r.part_id
         WHERE r.unit_id = u.id AND r.withdrawn_at IS NULL AND p.removed_at IS NULL) AS measured_count,
       (SELECT l.summary FROM log_entries l WHERE l.unit_id = u.id ORDER BY l.sequence DESC LIMIT 1) AS last_activity
     FROM units u ORDER BY u.last_activity_at DESC`,
    { type: QueryTypes.SELECT },
  );
  return rows.map(({ part_count, measured_count, last_activity_at, last_activity, ...row }) => ({
    ...row,
    partCount: part_count,
    measuredCount: measured_count,
    lastActivityAt: last_activity_at.toISOString(),
    lastActivity: last_activity,
  }));
}

/** A row of the list of units, as the database names its columns. */
interface SummaryRow {
  readonly id: string;
  readonly version: number;
  readonly number: number;
  readonly name: string;
  readonly kind: string;
  readonly hazards: UnitSummary['hazards'];
  readonly stage: Stage;
  readonly part_count: number;
  readonly measured_count: number;
  readonly last_activity_at: Date;
  readonly last_activity: string | null;
}

/** How often each kind of block has been convicted, over all units. */
export async function repairHistory(database: Sequelize): Promise<Record<string, number>> {
  const rows = await database.query<{ kind: string; count: number }>(
    `SELECT c ->> 'kind' AS kind, count(*)::int AS count
     FROM units u, jsonb_array_elements(u.intake -> 'convicted') c
     WHERE jsonb_typeof(u.intake -> 'convicted') = 'array' AND c ->> 'kind' IS NOT NULL
     GROUP BY 1`,
    { type: QueryTypes.SELECT },
  );
  return Object.fromEntries(rows.map((r) => [r.kind, r.count]));
}

/** A part's row as the part of a unit file. */
export function partFromRow(row: PartModel): FilePart {
  const values = { marked: row.marked, planned: row.planned, proven: row.proven };
  const present = Object.fromEntries(Object.entries(values).filter(([, v]) => v !== null && v !== undefined));
  const part: Pick<FilePart, 'ref' | 'kind' | 'pins'> = { ref: row.ref, kind: row.kind, pins: row.pins };
  return { ...part, ...present, ...row.extra } as FilePart;
}

/** The whole unit as the API answers it. Null when there is none. */
export async function loadUnit(id: string, transaction?: Transaction): Promise<UnitResource | null> {
  const options = transaction ? { transaction } : {};
  const unit = await UnitModel.findByPk(id, options);
  if (!unit) return null;
  const parts = await PartModel.findAll({
    where: { unitId: id, removedAt: null },
    order: [['position', 'ASC']],
    ...options,
  });
  const readouts = await ReadoutModel.findAll({
    where: { unitId: id, removedAt: null },
    order: [['position', 'ASC']],
    ...options,
  });
  const readings = await ReadingModel.findAll({
    where: { unitId: id },
    order: [
      ['takenAt', 'ASC'],
      ['id', 'ASC'],
    ],
    ...options,
  });
  const evidence = await EvidenceModel.findAll({
    where: { unitId: id },
    order: [
      ['takenAt', 'ASC'],
      ['id', 'ASC'],
    ],
    ...options,
  });
  const log = await LogEntryModel.findAll({
    where: { unitId: id },
    order: [['sequence', 'DESC']],
    limit: LOG_LENGTH,
    ...options,
  });
  return {
    id: unit.id,
    version: unit.version,
    number: unit.number,
    name: unit.name,
    kind: unit.kind,
    hazards: unit.hazards,
    hazardNotes: unit.hazardNotes,
    settings: unit.settings,
    stage: unit.stage,
    notes: unit.notes,
    ground: unit.ground,
    nudges: unit.nudges,
    models: unit.models,
    path: unit.path,
    intake: unit.intake,
    evidence: evidence.map((e) => ({
      ...e.definition,
      id: e.id,
      takenAt: e.takenAt.toISOString(),
      withdrawn: e.withdrawnAt !== null,
    })),
    photos: await photosOf(id, transaction),
    lastActivityAt: unit.lastActivityAt.toISOString(),
    lastActivity: log[0]?.summary ?? null,
    parts: parts.map((p) => ({ id: p.id, version: p.version, position: p.position, part: partFromRow(p) })),
    readouts: readouts.map((r) => ({
      id: r.id,
      version: r.version,
      position: r.position,
      readout: r.definition,
    })),
    readings: readings.map((r) => ({
      id: r.id,
      partId: r.partId,
      readoutId: r.readoutId,
      value: r.value,
      condition: r.condition,
      instrument: r.instrument,
      esr: r.esr,
      aspect: r.aspect,
      red: r.red,
      isAsDrawn: r.isAsDrawn,
      between: r.between,
      takenAt: r.takenAt.toISOString(),
      withdrawn: r.withdrawnAt !== null,
    })),
    log: log.map((l) => ({
      id: l.id,
      sequence: l.sequence,
      at: l.at.toISOString(),
      kind: l.kind,
      summary: l.summary,
      undone: l.undoneAt !== null,
      undoable: l.undoneAt === null && l.inverse.length > 0,
    })),
  };
}
