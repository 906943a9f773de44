import { randomUUID } from 'node:crypto';
import { Op, type Model, type ModelStatic, type Transaction } from 'sequelize';
import { actorOf } from '../../database/actor.ts';
import type { UnitModel } from '../../database/models/index.ts';
import {
  BeepModel,
  ChangeModel,
  EvidenceModel,
  LogEntryModel,
  PartModel,
  PhotoModel,
  ReadingModel,
  ReadoutModel,
  type Inverse,
} from '../../database/models/index.ts';

export interface Step {
  readonly kind: string;
  readonly summary: string;
  /** What takes the step back; empty for what cannot be undone. */
  readonly inverse?: readonly Inverse[];
  readonly at?: Date;
  /** Who did it, where it is not whoever writes now. */
  readonly by?: string | null;
}

/** Writes a step into the unit's log and marks the unit as touched. */
export const appendLog = (unit: UnitModel, step: Step, transaction: Transaction): Promise<void> =>
  appendSteps(unit, [step], transaction);

/** Writes steps one after the other, all at once. */
export async function appendSteps(
  unit: UnitModel,
  steps: readonly Step[],
  transaction: Transaction,
): Promise<void> {
  if (steps.length === 0) return;
  const first = unit.sequence + 1;
  const rows = steps.map(
    ({ kind, summary, inverse = [], at = new Date(), by = actorOf(transaction) }, i) => ({
      id: randomUUID(),
      unitId: unit.id,
      sequence: first + i,
      at,
      kind,
      summary,
      inverse: [...inverse],
      undoneAt: null,
      by,
    }),
  );
  const last = rows.at(-1)!;
  await unit.update({ sequence: last.sequence, lastActivityAt: last.at }, { transaction });
  if (rows.length === 1) await LogEntryModel.create(last, { transaction });
  else await LogEntryModel.bulkCreate(rows, { transaction });
}

/** A step by its place in the log. */
export async function stepAt(
  unitId: string,
  sequence: number,
  transaction: Transaction,
): Promise<LogEntryModel | null> {
  return LogEntryModel.findOne({ where: { unitId, sequence }, transaction });
}

/** The newest step after another that did something to an entity or a field, by what it is called in the inverse. */
export async function stepSince(
  unitId: string,
  sequence: number,
  isOf: (inverse: Inverse) => boolean,
  transaction: Transaction,
): Promise<LogEntryModel | null> {
  const later = await LogEntryModel.findAll({
    where: { unitId, sequence: { [Op.gt]: sequence }, undoneAt: null },
    order: [['sequence', 'DESC']],
    transaction,
  });
  return later.find((e) => e.inverse.some(isOf)) ?? null;
}

/** Kinds of things that a step may have changed, by the word in its inverse. */
const ENTITIES = {
  part: PartModel,
  readout: ReadoutModel,
  change: ChangeModel,
  photo: PhotoModel,
  reading: ReadingModel,
  evidence: EvidenceModel,
  beep: BeepModel,
} as const;

type Entities = { [Of in keyof typeof ENTITIES]: InstanceType<(typeof ENTITIES)[Of]> };

/** The row that a step has changed, live or not. */
export async function entityOf<Of extends keyof Entities>(
  of: Of,
  id: string,
  transaction: Transaction,
): Promise<Entities[Of] | null> {
  const model: ModelStatic<Model> = ENTITIES[of];
  return (await model.findByPk(id, { transaction })) as Entities[Of] | null;
}

export async function markUndone(step: LogEntryModel, transaction: Transaction): Promise<void> {
  await step.update({ undoneAt: new Date() }, { transaction });
}
