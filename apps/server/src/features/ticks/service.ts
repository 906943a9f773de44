import { MOST_TICKS, type TickRequest } from '@zemble/contract';
import type { Transaction } from 'sequelize';
import type { UnitModel } from '../../database/models/index.ts';
import { invalid } from '../../errors.ts';
import { appendLog } from '../log/repository.ts';
import { changeUnitRow } from '../units/repository.ts';

/** Ticks a step, or takes its tick back; what stands so already stays. Throws 422 for more steps than any work has. */
export async function tickStep(
  unit: UnitModel,
  { id, words, isDone, at }: TickRequest,
  transaction: Transaction,
): Promise<void> {
  const before = unit.ticks;
  const known = Object.hasOwn(before, id) ? before[id] : undefined;
  // A tick that has lapsed is ticked anew, with its own time.
  if (isDone ? known?.at === at : !known) return;
  if (isDone && !known && Object.keys(before).length >= MOST_TICKS)
    throw invalid(
      `${MOST_TICKS} steps are ticked already.`,
      'Begin the work anew, which takes old ticks away.',
    );
  const { [id]: _gone, ...others } = before;
  await changeUnitRow(unit, { ticks: isDone ? { ...before, [id]: { at } } : others }, transaction);
  await appendLog(
    unit,
    {
      kind: 'bench',
      summary: isDone ? words : `Not done after all: ${words}`,
      inverse: [{ op: 'set-unit', values: { ticks: before } }],
    },
    transaction,
  );
}
