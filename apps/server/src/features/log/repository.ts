import { randomUUID } from 'node:crypto';
import { Op, type Transaction } from 'sequelize';
import type { UnitModel } from '../../database/models/index.ts';
import { LogEntryModel, type Inverse } from '../../database/models/index.ts';

export interface Step {
  readonly kind: string;
  readonly summary: string;
  /** What takes the step back; empty for what cannot be undone. */
  readonly inverse?: readonly Inverse[];
  readonly at?: Date;
}

/** Writes a step into the unit's log and marks the unit as touched. */
export async function appendLog(unit: UnitModel, step: Step, transaction: Transaction): Promise<void> {
  const last = await LogEntryModel.max<number, LogEntryModel>('sequence', {
    where: { unitId: unit.id },
    transaction,
  });
  const at = step.at ?? new Date();
  await LogEntryModel.create(
    {
      id: randomUUID(),
      unitId: unit.id,
      sequence: (last ?? 0) + 1,
      at,
      kind: step.kind,
      summary: step.summary,
      inverse: [...(step.inverse ?? [])],
      undoneAt: null,
    },
    { transaction },
  );
  await unit.update({ version: unit.version + 1, lastActivityAt: at }, { transaction });
}

/** The newest step that can be taken back. */
export async function lastUndoable(unitId: string, transaction: Transaction): Promise<LogEntryModel | null> {
  const entries = await LogEntryModel.findAll({
    where: { unitId, undoneAt: null, kind: { [Op.ne]: 'undo' } },
    order: [['sequence', 'DESC']],
    limit: 50,
    transaction,
  });
  return entries.find((e) => e.inverse.length > 0) ?? null;
}
