import { isUnitField, TICKS_FIELD, UNIT_FIELD_KINDS, type Thing } from '@zemble/contract';
import { isSame, putThing, thingsBetween, thingsSentence } from '@zemble/core';
import type { Transaction } from 'sequelize';
import type { z } from 'zod';
import { noteThings } from '../../database/noted-rows.ts';
import type { UnitModel } from '../../database/models/index.ts';
import { invalid, stale } from '../../errors.ts';
import { changeUnitRow } from '../units/repository.ts';

/**
 * Puts things into fields of a unit, or takes them out, each by itself: what others did to other things meanwhile stays. Answers
 * those that changed something. Throws 409 for one that is not as it was seen, with what it is now, and 422 for a field that is
 * changed as a whole only.
 */
export async function putThings(
  unit: UnitModel,
  things: readonly Thing[],
  transaction: Transaction,
): Promise<readonly Thing[]> {
  const values = new Map<string, unknown>();
  const put: Thing[] = [];
  for (const thing of things) {
    const field = thing.at[0]!;
    const hasThings =
      field === 'ticks' || (isUnitField(field) && UNIT_FIELD_KINDS[field].shape !== undefined);
    if (!hasThings) throw invalid(`${field} has no things that are put one by one.`, 'Change it as a whole.');
    const before = values.has(field) ? values.get(field) : Reflect.get(unit, field);
    const result = putThing(before, thing);
    if (!result.ok) throw stale(thingsSentence([thing]), { at: thing.at, value: result.current });
    if (result.value === before) continue;
    values.set(field, result.value);
    put.push(thing);
  }
  for (const [field, value] of values) {
    const { schema } = isUnitField(field) ? UNIT_FIELD_KINDS[field] : TICKS_FIELD;
    const read = (schema as z.ZodType).safeParse(value);
    // What cannot be read is refused with the rest that must hold, before it commits.
    if (!read.success || isSame(read.data, value)) continue;
    // Kept as it is read, lists that were left out as empty ones too: then that is what was put.
    const others = put.filter(({ at }) => at[0] !== field);
    put.splice(0, put.length, ...others, ...thingsBetween(field, Reflect.get(unit, field), read.data));
    values.set(field, read.data);
  }
  const fields = [...values.keys()].filter(isUnitField);
  const versions = Object.fromEntries(fields.map((field) => [field, (unit.versions[field] ?? 0) + 1]));
  if (values.size === 0) return put;
  await changeUnitRow(
    unit,
    { ...Object.fromEntries(values), versions: { ...unit.versions, ...versions } },
    transaction,
  );
  noteThings(transaction, put);
  return put;
}
