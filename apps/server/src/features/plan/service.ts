import type { AcceptPlan } from '@halfsplit/contract';
import { formatQuantity, KINDS, QUANTITY_KINDS } from '@halfsplit/core';
import type { Transaction } from 'sequelize';
import type { Inverse, UnitModel } from '../../database/models/index.ts';
import { changeRow } from '../../database/rows.ts';
import { appendLog } from '../log/repository.ts';
import { partAtVersion } from '../parts/service.ts';

/** Sets the planned values of several parts in one step, or takes them back where `planned` is null. */
export async function acceptPlan(
  unit: UnitModel,
  request: AcceptPlan,
  transaction: Transaction,
): Promise<void> {
  const inverse: Inverse[] = [];
  const words: string[] = [];
  for (const change of request.changes) {
    const row = await partAtVersion(unit, change.partId, change.baseVersion, transaction);
    const before = { planned: row.planned ?? null };
    const quantity = QUANTITY_KINDS[KINDS[row.kind].value ?? 'number'];
    words.push(
      change.planned === null
        ? `${row.ref} stays as it is`
        : `${row.ref} ${formatQuantity(change.planned, quantity, { digits: 4 })}`,
    );
    await changeRow(row, { planned: change.planned }, transaction);
    inverse.push({ op: 'set-part', id: row.id, values: before });
  }
  await appendLog(
    unit,
    { kind: 'plan', summary: `Planned ${words.join(', ')}: ${request.reason}`, inverse },
    transaction,
  );
}
