import type { WriteAnswer } from '@zemble/contract';
import type { Transaction } from 'sequelize';
import type { UnitModel } from '../../database/models/index.ts';
import { notedThings, type TouchedRow } from '../../database/noted-rows.ts';
import { checkHolds } from '../record/hold.ts';
import { effectsOf } from './effects.ts';
import { keepEffects, notifyEdits, stepIn } from './repository.ts';

/**
 * Keeps what a write did with the step of the log that it made, tells the followers, and answers it. A write without a step,
 * as where a page last stood, is no edit.
 */
export async function commitEdit(
  unit: UnitModel,
  before: Pick<UnitModel, 'sets'>,
  key: string,
  rows: ReadonlyMap<string, TouchedRow>,
  transaction: Transaction,
): Promise<WriteAnswer> {
  const touched = [...rows.values()];
  await checkHolds(unit, before, touched, transaction);
  const step = stepIn(touched, unit.sequence);
  if (!step) return { unitId: unit.id, sequence: unit.sequence, edits: [] };
  const effects = effectsOf(touched, notedThings(transaction), step.summary);
  await keepEffects(step, effects, key, transaction);
  await notifyEdits(unit.id, transaction);
  return {
    unitId: unit.id,
    sequence: step.sequence,
    edits: [{ unitId: unit.id, sequence: step.sequence, key, effects }],
  };
}
