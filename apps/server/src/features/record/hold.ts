import { isUnitField, rowKind, unitFieldSchemas, TICKS_FIELD, type RowOf } from '@zemble/contract';
import type { Transaction } from 'sequelize';
import type { z } from 'zod';
import type { UnitModel } from '../../database/models/index.ts';
import { rowOfTouched, type TouchedRow } from '../../database/noted-rows.ts';
import { invalid } from '../../errors.ts';
import { checkSets } from '../changes/service.ts';
import { rowResource } from '../units/resources.ts';
import { countRows } from './repository.ts';

/**
 * What holds for every unit is looked at once, before a write commits, whoever writes: entries, undo, batches, import and restore
 * alike. Only what the write has touched is looked at, so that an old lapse elsewhere stops nobody. Throws 409 or 422 with the
 * name of the thing. That a name is there once, the database holds (`plugins/problems.ts` says it).
 */
export async function checkHolds(
  unit: UnitModel,
  before: Pick<UnitModel, 'sets'>,
  touched: readonly TouchedRow[],
  transaction: Transaction,
): Promise<void> {
  const kinds = new Set<RowOf>();
  for (const each of touched) {
    const row = rowOfTouched(each);
    if (row) {
      kinds.add(row.of);
      if (row.isLiving)
        readable(rowKind(row.of).words[0], rowKind(row.of).schema, rowResource(row.of, row.row));
    } else await checkFields(unit, before, each.fields, transaction);
  }
  for (const of of kinds) await checkCount(unit, of, transaction);
}

/** What is written must be what can be read again. */
function readable(what: string, schema: z.ZodType, value: unknown): void {
  const issue = schema.safeParse(value).error?.issues[0];
  if (issue)
    throw invalid(
      `${what.charAt(0).toUpperCase()}${what.slice(1)}: ${[...issue.path, ''].join(': ')}${issue.message}.`,
      'Correct it and try again.',
    );
}

async function checkFields(
  unit: UnitModel,
  before: Pick<UnitModel, 'sets'>,
  fields: ReadonlySet<string>,
  transaction: Transaction,
): Promise<void> {
  for (const field of fields) {
    if (field === 'ticks') readable('ticks', TICKS_FIELD.schema, unit.ticks);
    if (isUnitField(field)) readable(field, unitFieldSchemas[field], unit[field]);
  }
  if (fields.has('sets')) await checkSets(unit, before.sets, transaction);
}

/** A unit file has room for so many, and what is kept is what can be taken along. */
async function checkCount(unit: UnitModel, of: RowOf, transaction: Transaction): Promise<void> {
  const { most, words } = rowKind(of);
  if ((await countRows(of, unit.id, transaction)) > most)
    throw invalid(`A unit has room for ${most} ${words[1]}.`, 'Take some out first, or begin another unit.');
}
